package org.openpasture.core.fleet;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * Something that is sent to a device once, and how far it is.
 *
 * @param id given by the radio network, from 1
 * @param person who wanted it
 * @param what in words, "report interval = 30 s"
 * @param setting name of the model's setting that it changes; null for none
 * @param value that the setting gets; null without a setting
 * @param port 1 to 223
 * @param confirmed whether the device is asked to acknowledge it
 * @param tries how often it was sent
 * @param counter downlink counter of the last try; -1 before the first
 * @param reason the state in words
 */
public record Command(
        long id,
        String deviceId,
        Instant wantedAt,
        String person,
        String what,
        @Nullable String setting,
        @Nullable Double value,
        int port,
        byte[] payload,
        boolean confirmed,
        State state,
        int tries,
        long counter,
        Instant changedAt,
        String reason) {

    /** How far a command is. */
    public enum State {
        /** Waits for the device to listen. */
        WANTED,
        /** Was handed to a gateway and sent; an acknowledgement is awaited if one was asked for. */
        SENT,
        ACKNOWLEDGED,
        FAILED,
        /** Taken back by a person before it was sent. */
        CANCELLED;

        /** Whether nothing more happens to it. */
        public boolean isFinal() {
            return this == ACKNOWLEDGED || this == FAILED || this == CANCELLED;
        }

        /** The state of a word. */
        public static State of(String id) {
            return valueOf(id.toUpperCase(java.util.Locale.ROOT));
        }

        /** The word for it in the API. */
        public String id() {
            return name().toLowerCase(java.util.Locale.ROOT);
        }
    }

    /** The same in another state, tried as often as before. */
    public Command became(State next, Instant at, String why) {
        return with(next, tries, counter, at, why);
    }

    /** The same in another state. */
    public Command with(State next, int nowTries, long nowCounter, Instant at, String why) {
        return new Command(
                id,
                deviceId,
                wantedAt,
                person,
                what,
                setting,
                value,
                port,
                payload,
                confirmed,
                next,
                nowTries,
                nowCounter,
                at,
                why);
    }
}
