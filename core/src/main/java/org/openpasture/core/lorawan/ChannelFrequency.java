package org.openpasture.core.lorawan;

import org.openpasture.core.bytes.Bytes;

/**
 * How frequencies stand in MAC commands and channel lists (LoRaWAN L2 1.0.4, chapter 5): 24 bits in steps of 100 Hz,
 * little-endian.
 */
final class ChannelFrequency {
    static final int BYTES = 3;

    private ChannelFrequency() {}

    static void put(byte[] bytes, int at, long hz) {
        int steps = (int) (hz / 100);
        bytes[at] = (byte) steps;
        bytes[at + 1] = (byte) (steps >> 8);
        bytes[at + 2] = (byte) (steps >> 16);
    }

    /** Reads the frequency at a place. */
    static long read(byte[] bytes, int at) {
        return 100L * Bytes.little(bytes, at, 3);
    }
}
