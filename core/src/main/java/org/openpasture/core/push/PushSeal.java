package org.openpasture.core.push;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.KeyPair;
import java.security.SecureRandom;
import java.security.interfaces.ECPublicKey;
import javax.crypto.Cipher;
import javax.crypto.KDF;
import javax.crypto.KeyAgreement;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.HKDFParameterSpec;
import javax.crypto.spec.SecretKeySpec;

/**
 * Seals a message so that one browser alone can read it, and whoever hands it over cannot: Message Encryption for Web
 * Push (RFC 8291) in the content coding aes128gcm (RFC 8188), as one record. Any thread.
 */
public final class PushSeal {
    /** The longest message in bytes: a record of 4,096 less header, delimiter and tag (RFC 8291, 4). */
    public static final int LONGEST = 3_993;

    /** The length of the secret that a browser hands out beside its key, in bytes. */
    public static final int SECRET = 16;

    private static final int SALT = 16;
    private static final int RECORD = 4_096;
    private static final int TAG_BITS = 128;
    /** Ends the last record (RFC 8188, 2). */
    private static final byte LAST = 2;

    private static final SecureRandom RANDOM = new SecureRandom();

    private PushSeal() {}

    /**
     * Seals a message.
     *
     * @param browser the browser's public key
     * @param secret what the browser handed out beside it, 16 bytes
     * @return salt 16 | length of a record 4 | length of the key 1 | our key for this message 65 | sealed
     * @throws IllegalArgumentException if the message is too long
     */
    public static byte[] seal(byte[] message, ECPublicKey browser, byte[] secret) {
        byte[] salt = new byte[SALT];
        RANDOM.nextBytes(salt);
        return seal(message, browser, secret, PushKey.fresh(), salt);
    }

    /** The same with a key and a salt that are used for nothing else. */
    static byte[] seal(byte[] message, ECPublicKey browser, byte[] secret, KeyPair own, byte[] salt) {
        if (message.length > LONGEST || secret.length != SECRET) {
            throw new IllegalArgumentException("a message to a browser has up to 3,993 bytes, its secret 16");
        }
        byte[] ownKey = PushKey.write((ECPublicKey) own.getPublic());
        try {
            KeyAgreement agreement = KeyAgreement.getInstance("ECDH");
            agreement.init(own.getPrivate());
            agreement.doPhase(browser, true);
            byte[] shared = derived(
                    agreement.generateSecret(),
                    secret,
                    joined(info("WebPush: info"), PushKey.write(browser), ownKey),
                    32);
            byte[] key = derived(shared, salt, info("Content-Encoding: aes128gcm"), 16);
            byte[] nonce = derived(shared, salt, info("Content-Encoding: nonce"), 12);
            Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
            cipher.init(Cipher.ENCRYPT_MODE, new SecretKeySpec(key, "AES"), new GCMParameterSpec(TAG_BITS, nonce));
            byte[] sealed = cipher.doFinal(joined(message, new byte[] {LAST}));
            return ByteBuffer.allocate(SALT + 5 + ownKey.length + sealed.length)
                    .put(salt)
                    .putInt(RECORD)
                    .put((byte) ownKey.length)
                    .put(ownKey)
                    .put(sealed)
                    .array();
        } catch (GeneralSecurityException e) {
            throw PushKey.missing(e);
        }
    }

    /** HKDF with SHA-256 (RFC 5869). */
    private static byte[] derived(byte[] from, byte[] salt, byte[] info, int length) throws GeneralSecurityException {
        return KDF.getInstance("HKDF-SHA256")
                .deriveData(
                        HKDFParameterSpec.ofExtract().addIKM(from).addSalt(salt).thenExpand(info, length));
    }

    /** A purpose with the zero byte that ends it. */
    private static byte[] info(String purpose) {
        return joined(purpose.getBytes(StandardCharsets.US_ASCII), new byte[1]);
    }

    private static byte[] joined(byte[]... parts) {
        ByteArrayOutputStream all = new ByteArrayOutputStream();
        for (byte[] part : parts) {
            all.writeBytes(part);
        }
        return all.toByteArray();
    }
}
