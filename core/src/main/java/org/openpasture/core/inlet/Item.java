package org.openpasture.core.inlet;

import java.time.Instant;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;

/** What a message says of one device, before the device's model reads it. */
public sealed interface Item {
    /** What is shown of it: the bytes as they came, or of one part of them. */
    byte[] bytes();

    /**
     * It could be opened.
     *
     * @param address as it stands in the message
     * @param payload for the device model
     * @param time that the message gives; null where it gives none
     * @param signalDbm with which a relay heard it; null where it does not say
     * @param json what the payload says, where it was read as JSON already; else null
     * @param units SenML units by member of the JSON, where values name them
     */
    record Opened(
            String address,
            byte[] bytes,
            byte[] payload,
            @Nullable Instant time,
            @Nullable Double signalDbm,
            @Nullable JsonNode json,
            Map<String, String> units)
            implements Item {
        public Opened {
            units = Map.copyOf(units);
        }

        /** One whose values name no units. */
        public Opened(
                String address,
                byte[] bytes,
                byte[] payload,
                @Nullable Instant time,
                @Nullable Double signalDbm,
                @Nullable JsonNode json) {
            this(address, bytes, payload, time, signalDbm, json, Map.of());
        }

        /** One that stands for itself. */
        public static Opened of(String address, byte[] payload) {
            return new Opened(address, payload, payload, null, null, null);
        }
    }

    /** It could not, with the reason. */
    record Refused(byte[] bytes, String reason) implements Item {}
}
