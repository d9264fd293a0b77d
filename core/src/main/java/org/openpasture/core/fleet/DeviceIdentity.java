package org.openpasture.core.fleet;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.Locale;

/** By what a device is known when it speaks. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "activation")
@JsonSubTypes({
    @JsonSubTypes.Type(value = RadioIdentity.OverTheAir.class, name = "over-the-air"),
    @JsonSubTypes.Type(value = RadioIdentity.Personalised.class, name = "personalised"),
    @JsonSubTypes.Type(value = DeviceIdentity.OfInlet.class, name = "inlet")
})
public sealed interface DeviceIdentity permits RadioIdentity, DeviceIdentity.OfInlet {
    /** The name for it in the API. */
    String activation();

    /** What is written on the device, or stands in its messages. */
    String address();

    /**
     * An address in the messages of an inlet, or of a device that is asked by it.
     *
     * @param address as it stands there; small and capital letters are the same
     */
    record OfInlet(String inletId, String address) implements DeviceIdentity {
        private static final int LONGEST = 120;

        public OfInlet {
            address = address.strip();
            if (address.isEmpty() || address.length() > LONGEST) {
                throw new IllegalArgumentException("an address has 1 to " + LONGEST + " characters");
            }
        }

        @Override
        public String activation() {
            return "inlet";
        }

        /** By which it is found. */
        public String key() {
            return key(inletId, address);
        }

        /** By which a device of an address is found. */
        public static String key(String inletId, String address) {
            return inletId + "/" + address.strip().toLowerCase(Locale.ROOT);
        }
    }
}
