package org.openpasture.core.judging;

import java.nio.ByteBuffer;
import java.time.Instant;
import java.util.Arrays;
import java.util.OptionalDouble;
import org.openpasture.core.rule.Measure;

/**
 * The memory of a measure over one point: a window of time up to its newest reading, in slices, so that a reading costs
 * the same however many there were. A value stands until the next one, but for a quarter of the window at most; a mean
 * is known once at least half of the window is covered, a slope once its readings span at least half of it. The far end
 * of the window is exact to a slice. Times never run back: a reading that is not newer is left out. Not thread-safe.
 */
final class Window {
    /** Slices of a window; one more is kept, since the oldest is in part outside. */
    private static final int SLICES = 32;

    private static final int KEPT = SLICES + 1;
    private static final int HEADER_BYTES = 4 + 4 + 1 + 8 + 8;
    private static final int SLICE_BYTES = 7 * 8;

    private final Measure measure;
    private final long windowMillis;
    private final long sliceMillis;
    /** Which slice of time each place of the ring holds; -1 for none. */
    private final long[] slice = new long[KEPT];

    private final double[] area = new double[KEPT];
    private final long[] covered = new long[KEPT];
    private final double[] lowest = new double[KEPT];
    private final double[] highest = new double[KEPT];
    private final long[] firstTime = new long[KEPT];
    private final double[] firstValue = new double[KEPT];
    private boolean any;
    private long lastTime;
    private double lastValue;

    Window(Measure measure) {
        this.measure = measure;
        this.windowMillis = measure.seconds() * 1000L;
        this.sliceMillis = Math.max(1, windowMillis / SLICES);
        Arrays.fill(slice, -1);
    }

    /** Takes the next reading. */
    void update(Instant at, double value) {
        long time = at.toEpochMilli();
        if (any && time <= lastTime) {
            return;
        }
        if (any) {
            cover(lastTime, Math.min(time, lastTime + windowMillis / 4), lastValue);
        }
        int place = open(time);
        if (lowest[place] > highest[place]) {
            firstTime[place] = time;
            firstValue[place] = value;
        }
        lowest[place] = Math.min(lowest[place], value);
        highest[place] = Math.max(highest[place], value);
        any = true;
        lastTime = time;
        lastValue = value;
    }

    /** Adds the time for which a value stood to the slices that it stood in. */
    private void cover(long from, long until, double value) {
        long start = from;
        while (start < until) {
            long end = Math.min(until, (Math.floorDiv(start, sliceMillis) + 1) * sliceMillis);
            int place = open(start);
            area[place] += value * (end - start);
            covered[place] += end - start;
            start = end;
        }
    }

    private int open(long time) {
        long number = Math.floorDiv(time, sliceMillis);
        int place = Math.floorMod(number, KEPT);
        if (slice[place] != number) {
            slice[place] = number;
            area[place] = 0;
            covered[place] = 0;
            lowest[place] = Double.POSITIVE_INFINITY;
            highest[place] = Double.NEGATIVE_INFINITY;
        }
        return place;
    }

    boolean measures(Measure other) {
        return measure.equals(other);
    }

    /** Whether readings of a stretch of time may be in it. */
    boolean reaches(Instant from, Instant until) {
        return any && from.toEpochMilli() <= lastTime && until.toEpochMilli() > lastTime - windowMillis - sliceMillis;
    }

    /** Begins anew. */
    void forget() {
        any = false;
        Arrays.fill(slice, -1);
    }

    /** What the window comes to; empty while too little is known. */
    OptionalDouble value() {
        return any ? known() : OptionalDouble.empty();
    }

    private OptionalDouble known() {
        return switch (measure) {
            case Measure.Last last -> OptionalDouble.of(lastValue);
            case Measure.Mean mean -> mean();
            case Measure.FromMean off -> {
                OptionalDouble mean = mean();
                yield mean.isPresent() ? OptionalDouble.of(lastValue - mean.getAsDouble()) : mean;
            }
            case Measure.Lowest low -> OptionalDouble.of(low());
            case Measure.Highest high -> OptionalDouble.of(high());
            case Measure.Spread spread -> OptionalDouble.of(high() - low());
            case Measure.Slope slope -> slope();
        };
    }

    /** Whether a place of the ring lies in the window up to the newest reading. */
    private boolean isIn(int place) {
        return slice[place] >= 0 && (slice[place] + 1) * sliceMillis > lastTime - windowMillis;
    }

    private OptionalDouble mean() {
        double sum = 0;
        long time = 0;
        for (int i = 0; i < KEPT; i++) {
            if (isIn(i)) {
                sum += area[i];
                time += covered[i];
            }
        }
        return time * 2 >= windowMillis ? OptionalDouble.of(sum / time) : OptionalDouble.empty();
    }

    private double low() {
        double found = lastValue;
        for (int i = 0; i < KEPT; i++) {
            if (isIn(i)) {
                found = Math.min(found, lowest[i]);
            }
        }
        return found;
    }

    private double high() {
        double found = lastValue;
        for (int i = 0; i < KEPT; i++) {
            if (isIn(i)) {
                found = Math.max(found, highest[i]);
            }
        }
        return found;
    }

    private OptionalDouble slope() {
        int oldest = -1;
        for (int i = 0; i < KEPT; i++) {
            if (isIn(i) && lowest[i] <= highest[i] && (oldest < 0 || firstTime[i] < firstTime[oldest])) {
                oldest = i;
            }
        }
        long span = oldest < 0 ? 0 : lastTime - firstTime[oldest];
        return span * 2 >= windowMillis
                ? OptionalDouble.of((lastValue - firstValue[oldest]) * 3_600_000 / span)
                : OptionalDouble.empty();
    }

    /** As it is kept over a restart: what it measures, the newest reading, and each slice that holds something. */
    byte[] toBytes() {
        int used = 0;
        for (int i = 0; i < KEPT; i++) {
            used += isIn(i) ? 1 : 0;
        }
        ByteBuffer bytes = ByteBuffer.allocate(HEADER_BYTES + used * SLICE_BYTES)
                .putInt(measure.getClass().getSimpleName().hashCode())
                .putInt(measure.seconds())
                .put((byte) (any ? 1 : 0))
                .putLong(lastTime)
                .putDouble(lastValue);
        for (int i = 0; i < KEPT; i++) {
            if (isIn(i)) {
                bytes.putLong(slice[i])
                        .putDouble(area[i])
                        .putLong(covered[i])
                        .putDouble(lowest[i])
                        .putDouble(highest[i])
                        .putLong(firstTime[i])
                        .putDouble(firstValue[i]);
            }
        }
        return bytes.array();
    }

    /** One that goes on from what was kept; an empty one if that was of another measure. */
    static Window of(Measure measure, byte[] kept) {
        Window window = new Window(measure);
        ByteBuffer bytes = ByteBuffer.wrap(kept);
        if (kept.length < HEADER_BYTES
                || bytes.getInt() != measure.getClass().getSimpleName().hashCode()
                || bytes.getInt() != measure.seconds()) {
            return window;
        }
        window.any = bytes.get() == 1;
        window.lastTime = bytes.getLong();
        window.lastValue = bytes.getDouble();
        while (bytes.remaining() >= SLICE_BYTES) {
            long number = bytes.getLong();
            int i = Math.floorMod(number, KEPT);
            window.slice[i] = number;
            window.area[i] = bytes.getDouble();
            window.covered[i] = bytes.getLong();
            window.lowest[i] = bytes.getDouble();
            window.highest[i] = bytes.getDouble();
            window.firstTime[i] = bytes.getLong();
            window.firstValue[i] = bytes.getDouble();
        }
        return window;
    }
}
