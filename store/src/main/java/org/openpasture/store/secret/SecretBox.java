package org.openpasture.store.secret;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.util.Arrays;
import javax.crypto.Cipher;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;

/**
 * Encrypts secrets at rest with AES-256-GCM (NIST SP 800-38D). The key is a file of its own, readable by the service
 * alone, so that a copy of the database tells nobody a key. Sealed form: nonce 12 | ciphertext | tag 16.
 */
public final class SecretBox {
    private static final int NONCE = 12;
    private static final int TAG_BITS = 128;
    private final SecretKeySpec key;
    private final SecureRandom random = new SecureRandom();

    private SecretBox(byte[] key) {
        this.key = new SecretKeySpec(key, "AES");
    }

    /** Uses the key in a file, and makes one if there is none. */
    public static SecretBox withKeyFile(Path file) {
        try {
            if (!Files.exists(file)) {
                byte[] fresh = new byte[32];
                new SecureRandom().nextBytes(fresh);
                Files.createFile(
                        file, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
                Files.write(file, fresh);
            }
            byte[] key = Files.readAllBytes(file);
            if (key.length != 32) {
                throw new IllegalStateException(
                        file + " is no key file: it has " + key.length + " bytes instead of 32");
            }
            return new SecretBox(key);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public byte[] seal(byte[] clear) {
        byte[] nonce = new byte[NONCE];
        random.nextBytes(nonce);
        byte[] hidden = crypt(Cipher.ENCRYPT_MODE, nonce, clear, 0, clear.length);
        return ByteBuffer.allocate(NONCE + hidden.length).put(nonce).put(hidden).array();
    }

    /**
     * The inverse.
     *
     * @throws IllegalStateException if the bytes were not sealed with this key
     */
    public byte[] open(byte[] sealed) {
        return crypt(Cipher.DECRYPT_MODE, Arrays.copyOf(sealed, NONCE), sealed, NONCE, sealed.length - NONCE);
    }

    private byte[] crypt(int mode, byte[] nonce, byte[] input, int offset, int length) {
        try {
            Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
            cipher.init(mode, key, new GCMParameterSpec(TAG_BITS, nonce));
            return cipher.doFinal(input, offset, length);
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("a stored secret does not fit the key file; was secret.key replaced?", e);
        }
    }
}
