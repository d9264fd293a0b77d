package org.openpasture.core.derive;

import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.Optional;
import java.util.OptionalDouble;
import org.openpasture.core.quantity.Averaging;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;

/**
 * What the readings of a point come to over a stretch of time that ends at the moment asked for. What stood is added up
 * in slices of time, so that a reading costs the same however long the stretch is and however often the point reports;
 * of the slice in which the stretch begins, the part counts that lies in it. The result depends on the readings alone
 * and not on where one began to add them, as long as those of {@link #lookBack} were added. Times never run back. For
 * one thread.
 */
public final class RunningWindow {
    private static final int SLICES = 128;
    private static final double TENTH = 10;

    /** How much of the stretch has to be covered for it to be told, and to be told as good. */
    private static final double LEAST_COVERED = 0.5;

    private static final double WELL_COVERED = 0.75;

    private final Averaging.Rule rule;
    private final long windowMillis;
    private final long standsMillis;
    private final long sliceMillis;

    /** Which slice of time each place of the ring holds, and what stood in it. */
    private final long[] slice = new long[SLICES + 2];

    private final Sum[] sums = new Sum[SLICES + 2];

    private long lastTime = Long.MIN_VALUE;
    private double lastValue;
    private byte lastQuality;

    /** What stood in a stretch: the value times the milliseconds, how long that was, and the extremes. */
    private static final class Sum {
        private double area;
        private double covered;
        private double uncertain;
        private double lowest = Double.POSITIVE_INFINITY;
        private double highest = Double.NEGATIVE_INFINITY;

        void clear() {
            area = 0;
            covered = 0;
            uncertain = 0;
            lowest = Double.POSITIVE_INFINITY;
            highest = Double.NEGATIVE_INFINITY;
        }

        void add(double value, long millis, boolean isUncertain) {
            area += value * millis;
            covered += millis;
            uncertain += isUncertain ? millis : 0;
            lowest = Math.min(lowest, value);
            highest = Math.max(highest, value);
        }

        void add(Sum other, double share) {
            area += other.area * share;
            covered += other.covered * share;
            uncertain += other.uncertain * share;
            lowest = Math.min(lowest, other.lowest);
            highest = Math.max(highest, other.highest);
        }
    }

    public RunningWindow(Averaging averaging) {
        rule = averaging.rule();
        windowMillis = averaging.window().toMillis();
        standsMillis = averaging.stands().toMillis();
        sliceMillis = Math.ceilDiv(windowMillis, SLICES);
        Arrays.fill(slice, Long.MIN_VALUE);
        Arrays.setAll(sums, place -> new Sum());
    }

    /** How far back readings count. */
    public static Duration lookBack(Averaging averaging) {
        return averaging
                .window()
                .plusMillis(Math.ceilDiv(averaging.window().toMillis(), SLICES))
                .plus(averaging.stands());
    }

    /** Takes the next reading; one of the same moment as the last replaces it, an older one is left out. */
    public void add(Reading reading) {
        long time = reading.time().toEpochMilli();
        if (time < lastTime) {
            return;
        }
        if (time > lastTime) {
            coverUntil(time);
        }
        lastTime = time;
        lastValue = rule == Averaging.Rule.ENERGY_MEAN ? Math.pow(TENTH, reading.value() / TENTH) : reading.value();
        lastQuality = (byte) reading.quality().code();
    }

    private boolean isUsable() {
        return lastTime > Long.MIN_VALUE && lastQuality < Quality.BAD.code() && Double.isFinite(lastValue);
    }

    /** Adds the time for which the last value stood to the slices that it stood in. */
    private void coverUntil(long next) {
        if (!isUsable()) {
            return;
        }
        long until = Math.min(next, lastTime + standsMillis);
        long start = lastTime;
        while (start < until) {
            long number = Math.floorDiv(start, sliceMillis);
            long stop = Math.min(until, (number + 1) * sliceMillis);
            open(number).add(lastValue, stop - start, lastQuality == Quality.UNCERTAIN.code());
            start = stop;
        }
    }

    private Sum open(long number) {
        int place = Math.floorMod(number, slice.length);
        if (slice[place] != number) {
            slice[place] = number;
            sums[place].clear();
        }
        return sums[place];
    }

    /**
     * What a stretch came to.
     *
     * @param quality uncertain where a quarter of the stretch or more is not known, or something uncertain stood in it
     */
    public record Result(double value, Quality quality) {}

    /** What the stretch up to a moment comes to; empty while less than half of it is known. */
    public Optional<Result> at(Instant moment) {
        long until = moment.toEpochMilli();
        long from = until - windowMillis;
        long first = Math.floorDiv(from, sliceMillis);
        Sum all = new Sum();
        for (long number = first; number <= Math.floorDiv(until, sliceMillis); number++) {
            int place = Math.floorMod(number, slice.length);
            if (slice[place] == number && sums[place].covered > 0) {
                all.add(sums[place], number == first ? (double) ((first + 1) * sliceMillis - from) / sliceMillis : 1);
            }
        }
        standing(from, until, all);
        OptionalDouble value = value(all);
        return all.covered < LEAST_COVERED * windowMillis || value.isEmpty()
                ? Optional.empty()
                : Optional.of(new Result(
                        value.getAsDouble(),
                        all.uncertain > 0 || all.covered < WELL_COVERED * windowMillis
                                ? Quality.UNCERTAIN
                                : Quality.GOOD));
    }

    /** What has stood since the newest reading. */
    private void standing(long from, long until, Sum all) {
        if (isUsable()) {
            long start = Math.max(from, lastTime);
            long stop = Math.min(until, lastTime + standsMillis);
            if (stop >= start) {
                all.add(lastValue, stop - start, lastQuality == Quality.UNCERTAIN.code());
            }
        }
    }

    private OptionalDouble value(Sum all) {
        double value =
                switch (rule) {
                    case LAST -> Double.NaN;
                    case MEAN -> all.area / all.covered;
                    case ENERGY_MEAN -> TENTH * Math.log10(all.area / all.covered);
                    case MINIMUM -> all.lowest;
                    case MAXIMUM -> all.highest;
                };
        return Double.isFinite(value) ? OptionalDouble.of(value) : OptionalDouble.empty();
    }
}
