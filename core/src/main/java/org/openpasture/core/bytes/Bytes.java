package org.openpasture.core.bytes;

import java.nio.ByteOrder;
import org.jspecify.annotations.Nullable;

/** Whole numbers in bytes. */
public final class Bytes {
    private Bytes() {}

    /**
     * The number without a sign in some bytes.
     *
     * @param at where its first byte is
     * @param count of its bytes, 0 to 8; eight whose highest bit is set become a negative number
     * @throws IndexOutOfBoundsException if there are fewer bytes
     */
    public static long number(byte[] bytes, int at, int count, ByteOrder order) {
        long number = 0;
        for (int i = 0; i < count; i++) {
            int index = order == ByteOrder.LITTLE_ENDIAN ? at + count - 1 - i : at + i;
            number = number << 8 | bytes[index] & 0xFF;
        }
        return number;
    }

    /** A number of up to three bytes, most significant byte first, as fieldbuses send it. */
    public static int big(byte[] bytes, int at, int count) {
        return (int) number(bytes, at, count, ByteOrder.BIG_ENDIAN);
    }

    /** A number of up to three bytes, least significant byte first, as radio devices send it. */
    public static int little(byte[] bytes, int at, int count) {
        return (int) number(bytes, at, count, ByteOrder.LITTLE_ENDIAN);
    }

    /** The order that layouts call "little" or "big"; null for the usual one, the most significant byte first. */
    public static ByteOrder order(@Nullable String id) {
        return "little".equals(id) ? ByteOrder.LITTLE_ENDIAN : ByteOrder.BIG_ENDIAN;
    }

    /**
     * Refuses what is no name of an order.
     *
     * @param of whose order it is, for the message; empty for nothing to say
     * @throws IllegalArgumentException naming both
     */
    public static void requireOrder(String of, @Nullable String id) {
        if (id != null && !id.equals("big") && !id.equals("little")) {
            throw new IllegalArgumentException(
                    (of.isEmpty() ? "" : of + ": ") + "order is big or little, not '" + id + "'");
        }
    }
}
