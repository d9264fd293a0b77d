package org.openpasture.core.series;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/** A growing array of bytes with the variable-length integers (LEB128, zigzag for signed) that series are kept in. */
final class ByteSink {
    private byte[] bytes;
    private int size;

    ByteSink(int room) {
        bytes = new byte[Math.max(16, room)];
    }

    void u8(int value) {
        room(1);
        bytes[size++] = (byte) value;
    }

    /** An unsigned integer, 7 bits a byte, the lowest first. */
    void varint(long value) {
        room(10);
        long rest = value;
        while ((rest & ~0x7fL) != 0) {
            bytes[size++] = (byte) (rest | 0x80);
            rest >>>= 7;
        }
        bytes[size++] = (byte) rest;
    }

    /** A signed integer; small magnitudes take few bytes. */
    void zigzag(long value) {
        varint(value << 1 ^ value >> 63);
    }

    void text(String text) {
        byte[] utf8 = text.getBytes(StandardCharsets.UTF_8);
        varint(utf8.length);
        raw(utf8, utf8.length);
    }

    void raw(byte[] from, int length) {
        room(length);
        System.arraycopy(from, 0, bytes, size, length);
        size += length;
    }

    private void room(int more) {
        if (size + more > bytes.length) {
            bytes = Arrays.copyOf(bytes, Math.max(size + more, bytes.length * 2));
        }
    }

    int size() {
        return size;
    }

    /** The bytes up to {@link #size()}; the array may be longer. */
    byte[] array() {
        return bytes;
    }

    byte[] toBytes() {
        return Arrays.copyOf(bytes, size);
    }
}
