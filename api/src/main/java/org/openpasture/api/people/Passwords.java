package org.openpasture.api.people;

import org.jspecify.annotations.Nullable;

/** The one rule for passwords: long enough. */
final class Passwords {
    private static final int SHORTEST = 10;
    /** BCrypt reads no more than 72 bytes. */
    private static final int LONGEST = 72;

    private Passwords() {}

    static String checked(@Nullable String password) {
        if (password == null || password.length() < SHORTEST) {
            throw new IllegalArgumentException("the password needs at least " + SHORTEST + " characters");
        }
        if (password.getBytes(java.nio.charset.StandardCharsets.UTF_8).length > LONGEST) {
            throw new IllegalArgumentException("the password is longer than " + LONGEST + " bytes");
        }
        return password;
    }
}
