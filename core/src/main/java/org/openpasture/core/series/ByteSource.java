package org.openpasture.core.series;

import java.nio.charset.StandardCharsets;

/**
 * Reads what {@link ByteSink} wrote. Reading past the end is an {@link IllegalArgumentException}, since bytes on a disk
 * may be damaged.
 */
final class ByteSource {
    private final byte[] bytes;
    private final int end;
    private int at;

    ByteSource(byte[] bytes, int from, int end) {
        this.bytes = bytes;
        this.at = from;
        this.end = end;
    }

    int u8() {
        if (at >= end) {
            throw cutOff();
        }
        return bytes[at++] & 0xff;
    }

    long varint() {
        long value = 0;
        for (int shift = 0; shift < 64; shift += 7) {
            if (at >= end) {
                throw cutOff();
            }
            byte next = bytes[at++];
            value |= (long) (next & 0x7f) << shift;
            if (next >= 0) {
                return value;
            }
        }
        throw new IllegalArgumentException("an integer has more than 64 bits");
    }

    long zigzag() {
        long value = varint();
        return value >>> 1 ^ -(value & 1);
    }

    /** A count of things of which each takes at least so many bits; more than the bytes can hold is damage. */
    int count(int most) {
        long count = varint();
        if (count < 0 || count > most) {
            throw new IllegalArgumentException("it claims " + count + " entries, more than it can hold");
        }
        return (int) count;
    }

    String text() {
        int length = count(end - at);
        String text = new String(bytes, at, length, StandardCharsets.UTF_8);
        at += length;
        return text;
    }

    boolean isAtEnd() {
        return at >= end;
    }

    private static IllegalArgumentException cutOff() {
        return new IllegalArgumentException("it is cut off");
    }
}
