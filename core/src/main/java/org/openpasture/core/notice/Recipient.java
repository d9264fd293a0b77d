package org.openpasture.core.notice;

import java.util.regex.Pattern;

/**
 * Who is notified, as it is written in a rule: an e-mail address, a telephone number for text messages, or a person
 * with an account, who chooses how; and a browser of such a person.
 */
public sealed interface Recipient {
    /** An e-mail address. */
    record Mail(String address) implements Recipient {
        @Override
        public String written() {
            return address;
        }
    }

    /** A telephone number in the international form of ITU-T E.164: a plus sign and 7 to 15 digits. */
    record Text(String number) implements Recipient {
        @Override
        public String written() {
            return number;
        }
    }

    /** A person with an account, by the name that they sign in with. */
    record OfPerson(String name) implements Recipient {
        @Override
        public String written() {
            return PERSON + name;
        }
    }

    /** A browser of a person, by its id; it stands in no rule. */
    record OfBrowser(String id) implements Recipient {
        @Override
        public String written() {
            return BROWSER + id;
        }
    }

    /** What a browser's id is preceded by. */
    String BROWSER = "browser:";

    /** What a person's name is preceded by. */
    String PERSON = "person:";

    /** As it is written in a rule. */
    String written();

    /**
     * Reads what stands in a rule; spaces and dashes in a number do not matter.
     *
     * @throws IllegalArgumentException if it is none, in a sentence for people
     */
    static Recipient of(String written) {
        String text = written.strip();
        if (text.startsWith(PERSON) && text.length() > PERSON.length()) {
            return new OfPerson(text.substring(PERSON.length()));
        }
        if (Forms.ADDRESS.matcher(text).matches() && text.length() <= Forms.LONGEST_ADDRESS) {
            return new Mail(text);
        }
        String number = Forms.BETWEEN.matcher(text).replaceAll("").replaceFirst("^00", "+");
        if (Forms.NUMBER.matcher(number).matches()) {
            return new Text(number);
        }
        throw new IllegalArgumentException("'" + (text.length() > Forms.SHOWN ? text.substring(0, Forms.SHOWN) : text)
                + "' is no e-mail address and no telephone number such as +44 7700 900123");
    }

    /**
     * Reads what was kept, which a check of today might refuse: that is an e-mail address, as there was nothing else
     * before.
     */
    static Recipient kept(String written) {
        if (written.startsWith(BROWSER)) {
            return new OfBrowser(written.substring(BROWSER.length()));
        }
        try {
            return of(written);
        } catch (IllegalArgumentException e) {
            return new Mail(written);
        }
    }

    /** Whether a text is a telephone number in its international form. */
    static boolean isNumber(String text) {
        return Forms.NUMBER.matcher(text).matches();
    }

    /** The forms that are told apart. */
    final class Forms {
        private static final Pattern ADDRESS = Pattern.compile("[^@\\s<>]+@[^@\\s<>]+");
        private static final Pattern NUMBER = Pattern.compile("\\+[1-9]\\d{6,14}");
        private static final Pattern BETWEEN = Pattern.compile("[\\s()./-]");
        /** RFC 5321, 4.5.3.1.3, less the angle brackets. */
        private static final int LONGEST_ADDRESS = 254;

        private static final int SHOWN = 60;

        private Forms() {}
    }
}
