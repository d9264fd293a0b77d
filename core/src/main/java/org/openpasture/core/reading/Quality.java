package org.openpasture.core.reading;

/** How far a reading can be trusted, in the words of OPC UA (part 8, status code severity). */
public enum Quality {
    GOOD("good"),
    /** Usable with care, for example a value that was typed in or bridged. */
    UNCERTAIN("uncertain"),
    /** Not to be judged: outside the physical range, a sensor fault, a failed conversion. */
    BAD("bad");

    private static final Quality[] BY_CODE = values();
    private final String id;

    Quality(String id) {
        this.id = id;
    }

    /** The word for it in files and in the API. */
    public String id() {
        return id;
    }

    /**
     * The quality for a word, in small or capital letters.
     *
     * @throws IllegalArgumentException if it is none
     */
    public static Quality of(String word) {
        for (Quality quality : BY_CODE) {
            if (quality.id.equalsIgnoreCase(word)) {
                return quality;
            }
        }
        throw new IllegalArgumentException("'" + word + "' is no quality; there are good, uncertain, bad");
    }

    /**
     * The quality for a stored code.
     *
     * @param code 0 good, 1 uncertain, 2 bad; anything else reads as bad
     */
    public static Quality ofCode(int code) {
        return code >= 0 && code < BY_CODE.length ? BY_CODE[code] : BAD;
    }

    /** The stored code, 0 to 2. */
    public int code() {
        return ordinal();
    }
}
