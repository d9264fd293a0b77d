package org.openpasture.engine.inlet;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.decoding.ReadFrame;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.inlet.Item;
import org.openpasture.core.layout.ChannelValue;

/** What a part of a message came to. */
public sealed interface Taken {
    /** Its bytes as they came. */
    byte[] bytes();

    /**
     * A device's, and read.
     *
     * @param time that its readings belong to
     * @param saidTime whether the message says this time itself; else it is that of its arrival
     * @param values of its channels
     */
    record Read(
            Item.Opened item, Device device, Instant time, boolean saidTime, List<ChannelValue> values, ReadFrame frame)
            implements Taken {
        @Override
        public byte[] bytes() {
            return item.bytes();
        }
    }

    /** Nobody's that is known. */
    record OfStranger(Item.Opened item) implements Taken {
        @Override
        public byte[] bytes() {
            return item.bytes();
        }
    }

    /**
     * It cannot be used.
     *
     * @param device whose it is; null if that is not known
     */
    record Refused(byte[] bytes, @Nullable Device device, String reason) implements Taken {}
}
