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
 * What the readings of a point come to over a stretch of time that ends at the moment asked for. What lies whole in the
 * stretch is added up in slices of time, so that a reading costs the same however many there are; its far end is exact.
 * The result depends on the readings alone and not on where one began to add them, as long as those of
 * {@link #lookBack} were added. Times never run back. For one thread.
 */
public final class RunningWindow {
    private static final int SLICES = 32;
    private static final int FEW = 64;
    private static final double TENTH = 10;

    /** How much of the stretch has to be covered for it to be told, and to be told as good. */
    private static final double LEAST_COVERED = 0.5;

    private static final double WELL_COVERED = 0.75;

    private final Averaging.Rule rule;
    private final long windowMillis;
    private final long standsMillis;
    private final long sliceMillis;

    private long[] times = new long[FEW];
    private double[] values = new double[FEW];
    private byte[] qualities = new byte[FEW];
    private int head;
    private int end;

    /** Which slice of time each place of the ring holds, and what stood in it. */
    private final long[] slice;

    private final Sum[] sums;

    /** What stood in a stretch: the value times the milliseconds, how long that was, and the extremes. */
    private static final class Sum {
        private double area;
        private long covered;
        private long uncertain;
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

        void add(Sum other) {
            area += other.area;
            covered += other.covered;
            uncertain += other.uncertain;
            lowest = Math.min(lowest, other.lowest);
            highest = Math.max(highest, other.highest);
        }
    }

    public RunningWindow(Averaging averaging) {
        rule = averaging.rule();
        windowMillis = averaging.window().toMillis();
        standsMillis = averaging.stands().toMillis();
        sliceMillis = Math.ceilDiv(windowMillis, SLICES);
        slice = new long[SLICES + 2];
        sums = new Sum[SLICES + 2];
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
        if (end > head && time <= times[end - 1]) {
            if (time == times[end - 1]) {
                values[end - 1] = energy(reading.value());
                qualities[end - 1] = (byte) reading.quality().code();
            }
            return;
        }
        if (end > head) {
            cover(end - 1, time);
        }
        forget(time);
        if (end == times.length) {
            makeRoom();
        }
        times[end] = time;
        values[end] = energy(reading.value());
        qualities[end] = (byte) reading.quality().code();
        end++;
    }

    private double energy(double value) {
        return rule == Averaging.Rule.ENERGY_MEAN ? Math.pow(TENTH, value / TENTH) : value;
    }

    private boolean isUsable(int at) {
        return qualities[at] < Quality.BAD.code() && Double.isFinite(values[at]);
    }

    private boolean isUncertain(int at) {
        return qualities[at] == Quality.UNCERTAIN.code();
    }

    /** Adds the time for which a value stood to the slices that it stood in. */
    private void cover(int at, long next) {
        if (!isUsable(at)) {
            return;
        }
        long until = Math.min(next, times[at] + standsMillis);
        long start = times[at];
        while (start < until) {
            long stop = Math.min(until, (Math.floorDiv(start, sliceMillis) + 1) * sliceMillis);
            open(Math.floorDiv(start, sliceMillis)).add(values[at], stop - start, isUncertain(at));
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

    /** Lets go of what ended before the stretch. */
    private void forget(long newest) {
        while (end - head > 1 && times[head + 1] <= newest - windowMillis) {
            head++;
        }
    }

    private void makeRoom() {
        int size = end - head;
        int room = size * 2 > times.length ? times.length * 2 : times.length;
        times = Arrays.copyOf(Arrays.copyOfRange(times, head, end), room);
        values = Arrays.copyOf(Arrays.copyOfRange(values, head, end), room);
        qualities = Arrays.copyOf(Arrays.copyOfRange(qualities, head, end), room);
        head = 0;
        end = size;
    }

    /**
     * What a stretch came to.
     *
     * @param quality uncertain where a quarter of the stretch or more is not known, or something uncertain stood in it
     */
    public record Result(double value, Quality quality) {}

    /** What the stretch up to a moment comes to; empty while less than half of it is known. */
    public Optional<Result> at(Instant moment) {
        if (end == head) {
            return Optional.empty();
        }
        long until = moment.toEpochMilli();
        long from = until - windowMillis;
        long firstWhole = Math.ceilDiv(from, sliceMillis);
        Sum all = new Sum();
        farEnd(from, firstWhole * sliceMillis, all);
        for (long number = firstWhole; number <= Math.floorDiv(until, sliceMillis); number++) {
            int place = Math.floorMod(number, slice.length);
            if (slice[place] == number) {
                all.add(sums[place]);
            }
        }
        nearEnd(from, until, all);
        return all.covered < LEAST_COVERED * windowMillis
                ? Optional.empty()
                : value(all).stream()
                        .mapToObj(value -> new Result(
                                value,
                                all.uncertain > 0 || all.covered < WELL_COVERED * windowMillis
                                        ? Quality.UNCERTAIN
                                        : Quality.GOOD))
                        .findFirst();
    }

    /** What stood between the beginning of the stretch and that of its first whole slice. */
    private void farEnd(long from, long until, Sum all) {
        for (int i = head; i < end - 1 && times[i] < until; i++) {
            long start = Math.max(from, times[i]);
            long stop = Math.min(until, Math.min(times[i + 1], times[i] + standsMillis));
            if (stop > start && isUsable(i)) {
                all.add(values[i], stop - start, isUncertain(i));
            }
        }
    }

    /** What has stood since the newest reading. */
    private void nearEnd(long from, long until, Sum all) {
        int last = end - 1;
        long start = Math.max(from, times[last]);
        long stop = Math.min(until, times[last] + standsMillis);
        if (stop >= start && isUsable(last)) {
            all.add(values[last], stop - start, isUncertain(last));
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
