package org.openpasture.core.rule;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;

/**
 * What of a point's readings is compared with a rule's condition: the newest value, or what a window of time up to the
 * newest reading comes to. Windows run on the readings' times. docs/judging.md says how gaps are counted.
 */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Measure.Last.class, name = "last"),
    @JsonSubTypes.Type(value = Measure.Mean.class, name = "mean"),
    @JsonSubTypes.Type(value = Measure.Lowest.class, name = "lowest"),
    @JsonSubTypes.Type(value = Measure.Highest.class, name = "highest"),
    @JsonSubTypes.Type(value = Measure.Spread.class, name = "spread"),
    @JsonSubTypes.Type(value = Measure.Slope.class, name = "slope"),
    @JsonSubTypes.Type(value = Measure.FromMean.class, name = "from-mean")
})
public sealed interface Measure {
    Measure LAST = new Last();
    int SHORTEST_SECONDS = 60;
    int LONGEST_SECONDS = 31 * 86_400;

    /** The newest value. */
    record Last() implements Measure {
        @Override
        public int seconds() {
            return 0;
        }
    }

    /** The mean over the window, each value weighted by the time for which it stood. */
    record Mean(int seconds) implements Measure {
        public Mean {
            check(seconds);
        }
    }

    /** The lowest value in the window. */
    record Lowest(int seconds) implements Measure {
        public Lowest {
            check(seconds);
        }
    }

    /** The highest value in the window. */
    record Highest(int seconds) implements Measure {
        public Highest {
            check(seconds);
        }
    }

    /** The highest less the lowest value in the window. */
    record Spread(int seconds) implements Measure {
        public Spread {
            check(seconds);
        }
    }

    /** How much the value rises in an hour, over the window; below zero where it falls. */
    record Slope(int seconds) implements Measure {
        public Slope {
            check(seconds);
        }
    }

    /** The newest value less the mean over the window. */
    record FromMean(int seconds) implements Measure {
        public FromMean {
            check(seconds);
        }
    }

    /** How long the window is; 0 for the newest value. */
    int seconds();

    /** Whether it is a difference of two values, for which an offset of a unit does not count (5 °C are 9 °F then). */
    default boolean comparesDifferences() {
        return this instanceof Spread || this instanceof Slope || this instanceof FromMean;
    }

    /** What its unit has behind the point's unit. */
    default String perWhat() {
        return this instanceof Slope ? "/h" : "";
    }

    /** It in words, to stand before a value; empty for the newest value. */
    default String inWords() {
        return switch (this) {
            case Last last -> "";
            case Mean(int seconds) -> "mean over " + span(seconds);
            case Lowest(int seconds) -> "lowest of " + span(seconds);
            case Highest(int seconds) -> "highest of " + span(seconds);
            case Spread(int seconds) -> "spread over " + span(seconds);
            case Slope(int seconds) -> "rise over " + span(seconds);
            case FromMean(int seconds) -> "off its mean of " + span(seconds) + " by";
        };
    }

    private static String span(int seconds) {
        return seconds % 86_400 == 0
                ? seconds / 86_400 + " d"
                : seconds % 3_600 == 0
                        ? seconds / 3_600 + " h"
                        : seconds % 60 == 0 ? seconds / 60 + " min" : seconds + " s";
    }

    private static void check(int seconds) {
        if (seconds < SHORTEST_SECONDS || seconds > LONGEST_SECONDS) {
            throw new IllegalArgumentException(
                    "a window is from " + SHORTEST_SECONDS + " s to 31 days long, not " + seconds + " s");
        }
    }
}
