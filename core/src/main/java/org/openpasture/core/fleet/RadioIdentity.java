package org.openpasture.core.fleet;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import org.openpasture.core.lorawan.DevAddr;
import org.openpasture.core.lorawan.Eui64;

/** How a LoRaWAN device is known on the air. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "activation")
@JsonSubTypes({
    @JsonSubTypes.Type(value = RadioIdentity.OverTheAir.class, name = "over-the-air"),
    @JsonSubTypes.Type(value = RadioIdentity.Personalised.class, name = "personalised")
})
public sealed interface RadioIdentity {
  Eui64 devEui();

  /** The device joins and gets its address and session keys then. */
  record OverTheAir(Eui64 devEui, Eui64 joinEui) implements RadioIdentity {}

  /** Address and session keys were put into the device. */
  record Personalised(Eui64 devEui, DevAddr devAddr) implements RadioIdentity {}
}
