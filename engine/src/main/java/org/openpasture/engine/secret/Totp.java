package org.openpasture.engine.secret;

import java.nio.ByteBuffer;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.time.Instant;
import java.util.Locale;
import java.util.OptionalLong;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;

/**
 * Codes that change with time (RFC 6238), as authenticator apps show them: HMAC-SHA-1 over the number of the 30-second
 * step since 1970, shortened to six digits (RFC 4226, 5.3).
 */
public final class Totp {
    public static final int STEP_SECONDS = 30;
    private static final int DIGITS = 6;
    private static final SecureRandom RANDOM = new SecureRandom();

    private Totp() {}

    /** A new secret of 160 bits, as RFC 4226 recommends. */
    public static byte[] secret() {
        byte[] secret = new byte[20];
        RANDOM.nextBytes(secret);
        return secret;
    }

    /** The code of a step. */
    public static String code(byte[] secret, long step) {
        try {
            Mac mac = Mac.getInstance("HmacSHA1");
            mac.init(new SecretKeySpec(secret, "HmacSHA1"));
            byte[] hash = mac.doFinal(ByteBuffer.allocate(8).putLong(step).array());
            int offset = hash[hash.length - 1] & 0xf;
            int number = ByteBuffer.wrap(hash, offset, 4).getInt() & 0x7fffffff;
            return String.format(Locale.ROOT, "%06d", number % (int) Math.pow(10, DIGITS));
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("HMAC-SHA-1 is part of every Java runtime", e);
        }
    }

    /**
     * The step that a code belongs to: this one, or a neighbour, since clocks disagree; empty if it is none of them.
     */
    public static OptionalLong stepOf(byte[] secret, String code, Instant now) {
        String digits = code.replaceAll("\\s", "");
        long present = now.getEpochSecond() / STEP_SECONDS;
        for (long step = present - 1; step <= present + 1; step++) {
            if (code(secret, step).equals(digits)) {
                return OptionalLong.of(step);
            }
        }
        return OptionalLong.empty();
    }
}
