package org.openpasture.core.inlet;

import java.util.Map;

/**
 * One frame as an inlet took it in, before anything is known of it.
 *
 * @param bytes what was inside of the framing
 * @param sender who sent it, as far as the transport knows: an address and port, a user, a serial port
 * @param names what came beside it: headers by their names in small letters, parts of a topic by the names that its
 *     pattern gives them
 */
public record Arrived(byte[] bytes, String sender, Map<String, String> names) {
    public Arrived {
        names = Map.copyOf(names);
    }
}
