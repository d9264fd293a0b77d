package org.openpasture.core.layout;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One kind of message that a device sends.
 *
 * @param port the radio port (FPort) that it comes on; null for any
 * @param fields what it holds
 */
public record Message(@Nullable Integer port, List<Field> fields) {
    public Message {
        fields = List.copyOf(fields);
    }

    boolean isFor(int receivedPort) {
        return port == null || port == receivedPort;
    }
}
