package org.openpasture.core.quantity;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.time.Duration;
import java.util.Locale;
import org.openpasture.core.entity.Ids;

/**
 * How the values of a point are brought together over a stretch of time before they are compared with a limit. A value
 * stands until the next one, but not for longer than {@link #stands} says.
 *
 * @param rule what the values come to
 * @param minutes how long the stretch is, 1 minute to 31 days; 0 for the last value
 */
public record Averaging(Rule rule, int minutes) {
    /** The last value, as it is. */
    public static final Averaging LAST = new Averaging(Rule.LAST, 0);

    public static final int LONGEST_MINUTES = 31 * 24 * 60;

    private static final int LONGEST_SHARE = 4;
    private static final Duration USUAL_REPORTS = Duration.ofMinutes(15);
    private static final int MINUTES_OF_HOUR = 60;
    private static final int MINUTES_OF_DAY = 24 * 60;

    /** What the values of a stretch come to. */
    public enum Rule {
        /** The newest value: nothing is averaged. */
        LAST,
        /** The mean, each value weighted by the time for which it stood (EN 689: exposure over a shift). */
        MEAN,
        /** The level whose energy is the mean of the energies: {@code 10 lg(mean of 10^(L/10))} (ISO 1999, LEX). */
        ENERGY_MEAN,
        /** The lowest value that stood in the stretch. */
        MINIMUM,
        /** The highest. */
        MAXIMUM;

        @JsonCreator
        public static Rule of(String id) {
            return Ids.of(values(), Rule::id, "averaging rule", id);
        }

        @JsonValue
        public String id() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }
    }

    public Averaging {
        if (rule == null) {
            throw new IllegalArgumentException("averaging needs a rule");
        }
        boolean fits = rule == Rule.LAST ? minutes == 0 : minutes >= 1 && minutes <= LONGEST_MINUTES;
        if (!fits) {
            throw new IllegalArgumentException(
                    rule == Rule.LAST
                            ? "the last value is averaged over nothing; leave 'minutes' at 0"
                            : "values are averaged over 1 minute to 31 days, not over " + minutes + " minutes");
        }
    }

    /** How long the stretch is. */
    public Duration window() {
        return Duration.ofMinutes(minutes);
    }

    /** For how long a value stands where none follows. */
    public Duration stands() {
        return stands(window());
    }

    /**
     * For how long a value stands at most in a stretch: for a quarter of it, and where that is less than a quarter of
     * an hour for that long, since many sensors report no more often; never for longer than the stretch.
     */
    public static Duration stands(Duration stretch) {
        Duration quarter = stretch.dividedBy(LONGEST_SHARE);
        Duration least = stretch.compareTo(USUAL_REPORTS) < 0 ? stretch : USUAL_REPORTS;
        return quarter.compareTo(least) < 0 ? least : quarter;
    }

    /** In words: "mean over 8 h". */
    public String words() {
        String what =
                switch (rule) {
                    case LAST -> "last value";
                    case MEAN -> "mean";
                    case ENERGY_MEAN -> "energy mean";
                    case MINIMUM -> "lowest value";
                    case MAXIMUM -> "highest value";
                };
        return rule == Rule.LAST ? what : what + " over " + stretch();
    }

    private String stretch() {
        return minutes > MINUTES_OF_DAY && minutes % MINUTES_OF_DAY == 0
                ? minutes / MINUTES_OF_DAY + " d"
                : minutes % MINUTES_OF_HOUR == 0 ? minutes / MINUTES_OF_HOUR + " h" : minutes + " min";
    }
}
