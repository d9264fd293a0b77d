package org.openpasture.core.lorawan;

import java.security.GeneralSecurityException;
import java.util.Arrays;
import java.util.HexFormat;
import javax.crypto.Cipher;
import javax.crypto.spec.SecretKeySpec;

/**
 * An AES-128 key with the three operations that LoRaWAN needs. Not thread-bound: each call makes its own cipher. Its
 * text form hides the key, so that it can never be logged by accident.
 */
public final class AesKey {
    private static final int BLOCK = 16;
    private final byte[] bytes;
    private final SecretKeySpec spec;

    private AesKey(byte[] bytes) {
        this.bytes = bytes;
        this.spec = new SecretKeySpec(bytes, "AES");
    }

    /** A key of 16 bytes. */
    public static AesKey of(byte[] bytes) {
        if (bytes.length != BLOCK) {
            throw new IllegalArgumentException("an AES-128 key has 16 bytes, this has " + bytes.length);
        }
        return new AesKey(bytes.clone());
    }

    /** Reads 32 hex digits; spaces, colons and dashes between them are forgiven. */
    public static AesKey ofHex(String text) {
        String digits = text.replaceAll("[\\s:-]", "");
        if (digits.length() != 32) {
            throw new IllegalArgumentException("a key has 32 hex digits, this one has " + digits.length());
        }
        try {
            return of(HexFormat.of().parseHex(digits));
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("a key is made of the digits 0-9 and a-f only", e);
        }
    }

    /** A copy of the 16 bytes, for keeping them encrypted. */
    public byte[] toBytes() {
        return bytes.clone();
    }

    /** Encrypts whole blocks independently (ECB, as LoRaWAN builds everything from single blocks). */
    byte[] encryptBlocks(byte[] blocks) {
        return crypt(Cipher.ENCRYPT_MODE, blocks);
    }

    /** The inverse; a network encrypts a join accept with it, so that devices need only the encryption. */
    byte[] decryptBlocks(byte[] blocks) {
        return crypt(Cipher.DECRYPT_MODE, blocks);
    }

    private byte[] crypt(int mode, byte[] blocks) {
        try {
            Cipher cipher = Cipher.getInstance("AES/ECB/NoPadding");
            cipher.init(mode, spec);
            return cipher.doFinal(blocks);
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("AES is part of every Java runtime", e);
        }
    }

    /** AES-CMAC (RFC 4493), 16 bytes. */
    public byte[] cmac(byte[] message) {
        byte[] k1 = doubled(encryptBlocks(new byte[BLOCK]));
        int blocks = Math.max(1, (message.length + BLOCK - 1) / BLOCK);
        boolean whole = message.length == blocks * BLOCK;
        byte[] padded = Arrays.copyOf(message, blocks * BLOCK);
        if (!whole) {
            padded[message.length] = (byte) 0x80;
        }
        byte[] last = whole ? k1 : doubled(k1);
        for (int i = 0; i < BLOCK; i++) {
            padded[(blocks - 1) * BLOCK + i] ^= last[i];
        }
        try {
            Cipher cipher = Cipher.getInstance("AES/CBC/NoPadding");
            cipher.init(Cipher.ENCRYPT_MODE, spec, new javax.crypto.spec.IvParameterSpec(new byte[BLOCK]));
            byte[] chain = cipher.doFinal(padded);
            return Arrays.copyOfRange(chain, chain.length - BLOCK, chain.length);
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("AES is part of every Java runtime", e);
        }
    }

    /** Doubling in GF(2^128), RFC 4493 2.3. */
    private static byte[] doubled(byte[] in) {
        byte[] out = new byte[BLOCK];
        for (int i = 0; i < BLOCK; i++) {
            int next = i + 1 < BLOCK ? (in[i + 1] & 0xFF) >>> 7 : 0;
            out[i] = (byte) (in[i] << 1 | next);
        }
        if ((in[0] & 0x80) != 0) {
            out[BLOCK - 1] ^= (byte) 0x87;
        }
        return out;
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof AesKey key && java.security.MessageDigest.isEqual(bytes, key.bytes);
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(bytes);
    }

    @Override
    public String toString() {
        return "AesKey(hidden)";
    }
}
