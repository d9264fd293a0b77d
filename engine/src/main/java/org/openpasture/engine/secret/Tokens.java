package org.openpasture.engine.secret;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.security.SecureRandom;
import java.util.Base64;
import java.util.HexFormat;

/** Makes random tokens and the hashes under which they are kept. */
public final class Tokens {
    private static final SecureRandom RANDOM = new SecureRandom();

    private Tokens() {}

    /** 256 random bits, safe in an address. */
    public static String fresh() {
        byte[] bytes = new byte[32];
        RANDOM.nextBytes(bytes);
        return Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
    }

    /** A short code for typing from a screen, 50 random bits: "7KQ2-MXRA-49". */
    public static String shortCode() {
        String digits = "23456789ABCDEFGHJKLMNPQRSTUVWXYZ";
        StringBuilder code = new StringBuilder();
        for (int i = 0; i < 10; i++) {
            if (i == 4 || i == 8) {
                code.append('-');
            }
            code.append(digits.charAt(RANDOM.nextInt(digits.length())));
        }
        return code.toString();
    }

    /** The token of an Authorization header, with or without the word before it. */
    public static String ofHeader(String authorization) {
        return authorization.replaceFirst("(?i)^Bearer ", "").strip();
    }

    /** SHA-256, hex. Tokens are random, so that no salt is needed. */
    public static String hash(String token) {
        return hash(token.getBytes(StandardCharsets.UTF_8));
    }

    /** The same of some bytes. */
    public static String hash(byte[] bytes) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("SHA-256 is part of every Java runtime", e);
        }
    }
}
