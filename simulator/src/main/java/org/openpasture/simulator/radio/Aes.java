package org.openpasture.simulator.radio;

import java.security.GeneralSecurityException;
import java.util.HexFormat;
import javax.crypto.Cipher;
import javax.crypto.spec.SecretKeySpec;

/** One AES block, and AES-CMAC by RFC 4493 built on it. The simulator's own, so that it proves the service's. */
final class Aes {
    private static final int BLOCK = 16;

    private Aes() {}

    static byte[] hex(String digits) {
        return HexFormat.of().parseHex(digits);
    }

    static byte[] encrypt(byte[] key, byte[] block) {
        try {
            Cipher cipher = Cipher.getInstance("AES/ECB/NoPadding");
            cipher.init(Cipher.ENCRYPT_MODE, new SecretKeySpec(key, "AES"));
            return cipher.doFinal(block);
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException(e);
        }
    }

    static byte[] cmac(byte[] key, byte[] text) {
        byte[] subkey = shift(encrypt(key, new byte[BLOCK]));
        int whole = text.length == 0 ? 0 : (text.length - 1) / BLOCK;
        byte[] state = new byte[BLOCK];
        for (int i = 0; i < whole; i++) {
            for (int k = 0; k < BLOCK; k++) {
                state[k] ^= text[i * BLOCK + k];
            }
            state = encrypt(key, state);
        }
        int rest = text.length - whole * BLOCK;
        byte[] last = new byte[BLOCK];
        System.arraycopy(text, whole * BLOCK, last, 0, rest);
        if (rest < BLOCK) {
            last[rest] = (byte) 0x80;
            subkey = shift(subkey);
        }
        for (int k = 0; k < BLOCK; k++) {
            state[k] ^= (byte) (last[k] ^ subkey[k]);
        }
        return encrypt(key, state);
    }

    private static byte[] shift(byte[] value) {
        byte[] result = new byte[BLOCK];
        int carry = 0;
        for (int k = BLOCK - 1; k >= 0; k--) {
            int bits = (value[k] & 0xFF) << 1 | carry;
            result[k] = (byte) bits;
            carry = bits >> 8;
        }
        if (carry != 0) {
            result[BLOCK - 1] ^= (byte) 0x87;
        }
        return result;
    }
}
