package org.openpasture.simulator.radio;

import java.io.ByteArrayOutputStream;

/** Puts bytes one after the other. */
public final class Bytes {
    private final ByteArrayOutputStream out = new ByteArrayOutputStream();

    public Bytes u8(long value) {
        out.write((int) value);
        return this;
    }

    /** Two bytes, least significant first. */
    public Bytes u16le(long value) {
        return u8(value & 0xFF).u8(value >> 8 & 0xFF);
    }

    /** Two bytes, most significant first. */
    public Bytes u16be(long value) {
        return u8(value >> 8 & 0xFF).u8(value & 0xFF);
    }

    /** Four bytes, most significant first. */
    public Bytes u32be(long value) {
        return u16be(value >> 16 & 0xFFFF).u16be(value & 0xFFFF);
    }

    public Bytes u32le(long value) {
        return u16le(value & 0xFFFF).u16le(value >> 16 & 0xFFFF);
    }

    public Bytes raw(byte[] bytes) {
        out.writeBytes(bytes);
        return this;
    }

    /** Hex digits in the opposite order of bytes, as LoRaWAN sends its EUIs. */
    public Bytes reversedHex(String digits) {
        byte[] bytes = Aes.hex(digits);
        for (int i = bytes.length - 1; i >= 0; i--) {
            out.write(bytes[i]);
        }
        return this;
    }

    public byte[] done() {
        return out.toByteArray();
    }
}
