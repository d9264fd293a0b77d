package org.openpasture.core.edit;

import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.place.Shown;
import org.openpasture.core.text.Text;

/** Whether decimals and words for values can be used, wherever they are given. */
final class ValueWords {
    static final int MOST_DECIMALS = 6;
    private static final int MOST_WORDS = 50;
    private static final int LONGEST_WORD = 40;
    /** As every program that shows the word reads it. */
    private static final Pattern NUMBER = Pattern.compile("-?\\d{1,15}(\\.\\d{1,9})?");

    /** What to do about words that cannot be used. */
    static final String TODO =
            "Give up to " + MOST_WORDS + " numbers a word of up to " + LONGEST_WORD + " characters each.";

    private ValueWords() {}

    static boolean areUsable(@Nullable Map<String, String> words) {
        return words == null
                || words.size() <= MOST_WORDS && words.entrySet().stream().allMatch(ValueWords::isWord);
    }

    static boolean isUsable(@Nullable Integer decimals) {
        return decimals == null || decimals >= 0 && decimals <= MOST_DECIMALS;
    }

    /**
     * Why this cannot be how something is shown.
     *
     * @param whose begins the sentence: "The point"
     */
    static Optional<Refused> refusal(String whose, Shown shown) {
        if (!isUsable(shown.decimals())) {
            return Optional.of(Refused.invalid(
                    whose + " has " + shown.decimals() + " decimals.", "Use 0 to " + MOST_DECIMALS + "."));
        }
        return areUsable(shown.words())
                ? Optional.empty()
                : Optional.of(Refused.invalid(whose + " has words for values that cannot be used.", TODO));
    }

    /** Whether a text stays as it is where it stands on one line. */
    static boolean isLine(String text) {
        try {
            return Text.line(text).length() == text.length();
        } catch (IllegalArgumentException e) {
            return false;
        }
    }

    private static boolean isWord(Map.Entry<String, String> word) {
        return NUMBER.matcher(word.getKey()).matches()
                && word.getValue() != null
                && !word.getValue().isBlank()
                && word.getValue().length() <= LONGEST_WORD
                && isLine(word.getValue());
    }
}
