package org.openpasture.api.people;

import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.text.PersonName;

/** The rules for passwords: long enough, and nothing that everybody tries first (NIST SP 800-63B, 3.1.1.2). */
public final class Passwords {
    private static final int SHORTEST = 10;
    /** BCrypt reads no more than 72 bytes. */
    private static final int LONGEST = 72;

    /** A run of a keyboard's or the alphabet's order that is longer than this is what people type first. */
    private static final int LONGEST_RUN = 7;

    private static final List<String> ORDERS = List.of(
            "01234567890",
            "qwertyuiop",
            "asdfghjkl",
            "zxcvbnm",
            "qwertzuiop",
            "azertyuiop",
            "abcdefghijklmnopqrstuvwxyz");
    private static final Set<String> COMMON = Set.of(
            "password",
            "passwort",
            "motdepasse",
            "contrasena",
            "iloveyou",
            "letmein",
            "welcome",
            "changeme",
            "administrator",
            "administrateur",
            "superman",
            "football",
            "baseball",
            "sunshine",
            "princess",
            "openpasture",
            "trustno",
            "whatever",
            "secret",
            "default");

    private Passwords() {}

    /**
     * Refuses a password that is easily guessed for somebody.
     *
     * @throws IllegalArgumentException in words
     */
    public static void requireNotGuessed(String password, String name) {
        String plain = password.toLowerCase(Locale.ROOT);
        String letters = plain.replaceAll("[^\\p{L}]", "");
        String key = PersonName.key(name).replaceAll("\\s", "");
        if (key.length() > 2 && plain.replaceAll("\\s", "").contains(key)) {
            throw new IllegalArgumentException("the password contains the name, which is tried first");
        }
        if (COMMON.contains(letters)
                || plain.chars().distinct().count() < 4
                || ORDERS.stream().anyMatch(order -> hasRun(plain, order))) {
            throw new IllegalArgumentException(
                    "the password is one of those that are tried first; several words that do not belong together "
                            + "are better");
        }
    }

    private static boolean hasRun(String text, String order) {
        String back = new StringBuilder(order).reverse().toString();
        for (int i = 0; i + LONGEST_RUN < order.length(); i++) {
            if (text.contains(order.substring(i, i + LONGEST_RUN + 1))
                    || text.contains(back.substring(i, i + LONGEST_RUN + 1))) {
                return true;
            }
        }
        return false;
    }

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
