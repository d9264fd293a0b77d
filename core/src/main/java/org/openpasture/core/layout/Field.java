package org.openpasture.core.layout;

import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.bytes.Bytes;
import org.openpasture.core.quantity.Decimals;

/**
 * Where in a frame one channel lies and how its bytes make a number: {@code number * scale + offset}.
 *
 * @param channel the name that the value gets
 * @param at first byte, counted from 0; negative counts from the end (-1 is the last byte)
 * @param order "big" (most significant byte first) or "little"
 * @param bits a part of the integer, for flags and packed numbers; null for all of it
 * @param scale null for 1
 * @param offset null for 0
 * @param missing the raw number by which the device says "no value"; null if it never does
 */
public record Field(
        String channel,
        int at,
        FieldType type,
        @Nullable String order,
        @Nullable Bits bits,
        @Nullable Double scale,
        @Nullable Double offset,
        @Nullable Double missing) {
    public Field {
        Bytes.requireOrder("field '" + channel + "'", order);
    }

    /**
     * Some bits of an integer.
     *
     * @param from lowest bit, 0 is the least significant
     * @param count how many, 1 to 32
     */
    public record Bits(int from, int count) {
        public Bits {
            if (from < 0 || count < 1 || count > 32 || from + count > 32) {
                throw new IllegalArgumentException("bits lie within 0 to 31, not " + from + " and " + count + " more");
            }
        }
    }

    /** A field of whole big-endian numbers without scale, the commonest kind. */
    public static Field of(String channel, int at, FieldType type) {
        return new Field(channel, at, type, null, null, null, null, null);
    }

    /** The index of the first byte in a frame of this length; may lie outside of it. */
    int start(int length) {
        return at >= 0 ? at : length + at;
    }

    /** The value, or nothing where the device says that it has none. The caller has checked the length. */
    Optional<Double> read(byte[] payload) {
        int start = start(payload.length);
        long word = Bytes.number(payload, start, type.bytes(), Bytes.order(order));
        double number = bits == null ? type.read(word) : (word >>> bits.from()) & ((1L << bits.count()) - 1);
        if (missing != null && number == missing) {
            return Optional.empty();
        }
        return Optional.of(Decimals.scaled(number, scale, offset));
    }
}
