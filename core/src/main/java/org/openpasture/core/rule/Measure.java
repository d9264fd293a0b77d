package org.openpasture.core.rule;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.series.Trend;

/**
 * What of a point's readings is compared with a rule's condition: the newest value, or what a window of time up to the
 * newest reading comes to. Windows run on the readings' times. docs/judging.md says how gaps are counted.
 */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Measure.Last.class, name = "last"),
    @JsonSubTypes.Type(value = Measure.Mean.class, name = "mean"),
    @JsonSubTypes.Type(value = Measure.Minimum.class, name = "minimum"),
    @JsonSubTypes.Type(value = Measure.Maximum.class, name = "maximum"),
    @JsonSubTypes.Type(value = Measure.Range.class, name = "range"),
    @JsonSubTypes.Type(value = Measure.Rate.class, name = "rate"),
    @JsonSubTypes.Type(value = Measure.Deviation.class, name = "deviation"),
    @JsonSubTypes.Type(value = Measure.Forecast.class, name = "forecast"),
    @JsonSubTypes.Type(value = Measure.Difference.class, name = "difference")
})
public sealed interface Measure {
    Measure LAST = new Last();
    int SHORTEST_SECONDS = 60;
    int LONGEST_SECONDS = 31 * 86_400;
    int SHORTEST_TREND_SECONDS = 2 * 86_400;

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
    record Minimum(int seconds) implements Measure {
        public Minimum {
            check(seconds);
        }
    }

    /** The highest value in the window. */
    record Maximum(int seconds) implements Measure {
        public Maximum {
            check(seconds);
        }
    }

    /** The highest less the lowest value in the window. */
    record Range(int seconds) implements Measure {
        public Range {
            check(seconds);
        }
    }

    /** How much the value rises in an hour, over the window; below zero where it falls. */
    record Rate(int seconds) implements Measure {
        public Rate {
            check(seconds);
        }
    }

    /** The newest value less the mean over the window. */
    record Deviation(int seconds) implements Measure {
        public Deviation {
            check(seconds);
        }
    }

    /**
     * What the value comes to after some time if it goes on as in the window: by the trend of the means of its days, or
     * of its quarters of days where it is shorter than a fortnight. Without a clear trend the value is expected to
     * stay.
     *
     * @param seconds of the window, from two days
     * @param aheadSeconds how far ahead, from a minute to three times the window
     */
    record Forecast(int seconds, int aheadSeconds) implements Measure {
        public Forecast {
            check(seconds);
            if (seconds < SHORTEST_TREND_SECONDS) {
                throw new IllegalArgumentException("the trend for a forecast needs a window of two days or more");
            }
            if (aheadSeconds < SHORTEST_SECONDS || aheadSeconds > (long) Trend.FURTHEST * seconds) {
                throw new IllegalArgumentException("a forecast reaches at most " + Trend.FURTHEST
                        + " times as far ahead as its window reaches back");
            }
        }
    }

    /**
     * The newest value less the newest value of another point. Unknown while the two were measured too far apart.
     *
     * @param withinSeconds how far apart at most; an hour if left out
     */
    record Difference(String pointId, @Nullable Integer withinSeconds) implements Measure {
        private static final int USUALLY_WITHIN = 3_600;

        public Difference {
            withinSeconds = withinSeconds == null ? USUALLY_WITHIN : withinSeconds;
            if (pointId == null || pointId.isBlank()) {
                throw new IllegalArgumentException("a difference needs another point");
            }
            if (withinSeconds < 1 || withinSeconds > LONGEST_SECONDS) {
                throw new IllegalArgumentException("the two values lie 1 s to 31 days apart at most");
            }
        }

        @Override
        public int seconds() {
            return 0;
        }

        /** How far apart the two values may have been measured, in seconds. */
        public int within() {
            return withinSeconds == null ? USUALLY_WITHIN : withinSeconds;
        }
    }

    /** How long the window is; 0 for the newest value. */
    int seconds();

    /** Whether it is a difference of two values, for which an offset of a unit does not count (5 °C are 9 °F then). */
    default boolean comparesDifferences() {
        return this instanceof Range || this instanceof Rate || this instanceof Deviation || this instanceof Difference;
    }

    /** What its unit has behind the point's unit. */
    default String perWhat() {
        return this instanceof Rate ? "/h" : "";
    }

    /** It in words, to stand before a value; empty for the newest value. */
    default String inWords() {
        return switch (this) {
            case Last last -> "";
            case Mean(int seconds) -> "mean over " + span(seconds);
            case Minimum(int seconds) -> "minimum over " + span(seconds);
            case Maximum(int seconds) -> "maximum over " + span(seconds);
            case Range(int seconds) -> "range over " + span(seconds);
            case Rate(int seconds) -> "rate of change over " + span(seconds);
            case Deviation(int seconds) -> "deviation from mean over " + span(seconds);
            case Forecast(int seconds, int ahead) ->
                "forecast for " + span(ahead) + " (trend of " + span(seconds) + ")";
            case Difference difference -> "difference from another point";
        };
    }

    /** A length of time in words. */
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
