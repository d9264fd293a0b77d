package org.openpasture.core.lorawan;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Arrays;

/** Integrity code and encryption of data frames (LoRaWAN L2 1.0.4, 4.3.3 and 4.4). */
public final class FrameCrypto {
    static final int UPLINK = 0;
    static final int DOWNLINK = 1;
    private static final int BLOCK = 16;

    private FrameCrypto() {}

    /** AES-CMAC over B0 and the first {@code length} bytes of the message; the frame carries its first 4 bytes. */
    static byte[] dataCode(AesKey nwkSKey, int direction, DevAddr address, long counter, byte[] message, int length) {
        byte[] covered = new byte[BLOCK + length];
        System.arraycopy(block(0x49, direction, address, counter, length), 0, covered, 0, BLOCK);
        System.arraycopy(message, 0, covered, BLOCK, length);
        return nwkSKey.cmac(covered);
    }

    /**
     * Encrypts or decrypts a payload; both are the same.
     *
     * @param key AppSKey, or NwkSKey on port 0
     * @param counter full 32 bits
     */
    static byte[] crypt(AesKey key, int direction, DevAddr address, long counter, byte[] payload) {
        int blocks = (payload.length + BLOCK - 1) / BLOCK;
        byte[] stream = new byte[blocks * BLOCK];
        for (int i = 0; i < blocks; i++) {
            System.arraycopy(block(0x01, direction, address, counter, i + 1), 0, stream, i * BLOCK, BLOCK);
        }
        stream = key.encryptBlocks(stream);
        byte[] result = Arrays.copyOf(payload, payload.length);
        for (int i = 0; i < result.length; i++) {
            result[i] ^= stream[i];
        }
        return result;
    }

    private static byte[] block(int first, int direction, DevAddr address, long counter, int last) {
        return ByteBuffer.allocate(BLOCK)
                .order(ByteOrder.LITTLE_ENDIAN)
                .put((byte) first)
                .putInt(0)
                .put((byte) direction)
                .putInt(address.bits())
                .putInt((int) counter)
                .put((byte) 0)
                .put((byte) last)
                .array();
    }
}
