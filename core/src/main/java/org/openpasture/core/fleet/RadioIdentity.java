package org.openpasture.core.fleet;

import org.openpasture.core.lorawan.DevAddr;
import org.openpasture.core.lorawan.Eui64;

/** How a LoRaWAN device is known on the air. */
public sealed interface RadioIdentity extends DeviceIdentity {
    Eui64 devEui();

    @Override
    default String address() {
        return devEui().toString();
    }

    /** The device joins and gets its address and session keys then. */
    record OverTheAir(Eui64 devEui, Eui64 joinEui) implements RadioIdentity {
        @Override
        public String activation() {
            return "over-the-air";
        }
    }

    /** Address and session keys were put into the device. */
    record Personalised(Eui64 devEui, DevAddr devAddr) implements RadioIdentity {
        @Override
        public String activation() {
            return "personalised";
        }
    }
}
