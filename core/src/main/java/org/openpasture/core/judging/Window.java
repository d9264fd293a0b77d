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
    /** Slices of a window; one more is kept, since the newest is not full yet. */
    private static final int SLICES = 32;

    private static final int KEPT = SLICES + 1;
    private static final int HEADER_BYTES = 4 + 4 + 1 + 8 + 8;
    private static final int SLICE_BYTES = 3 * 8;
    private static final double NONE = Double.NaN;

    /** What is kept of a slice: two numbers, and what they are by the kind of measure. */
    private enum Keeps {
        /** The value times the milliseconds for which it stood, and these milliseconds. */
        AREA,
        /** The lowest and the highest value. */
        EXTREMES,
        /** The time (epoch ms) and the value of the first reading. */
        FIRST
    }

    private final Measure measure;
    private final Keeps keeps;
    private final long windowMillis;
    private final long sliceMillis;
    /** Which slice of time each place of the ring holds. */
    private final long[] slice = new long[KEPT];

    private final double[] one = new double[KEPT];
    private final double[] two = new double[KEPT];
    private boolean any;
    private long lastTime;
    private double lastValue;
    /** What the slices before the newest come to, which changes only when that is another one. */
    private long othersOf = Long.MIN_VALUE;

    private double othersOne;
    private double othersTwo;

    Window(Measure measure) {
        this.measure = measure;
        this.keeps = switch (measure) {
            case Measure.Last last -> Keeps.EXTREMES;
            case Measure.Mean mean -> Keeps.AREA;
            case Measure.Deviation off -> Keeps.AREA;
            case Measure.Minimum low -> Keeps.EXTREMES;
            case Measure.Maximum high -> Keeps.EXTREMES;
            case Measure.Range spread -> Keeps.EXTREMES;
            case Measure.Rate slope -> Keeps.FIRST;
        };
        this.windowMillis = measure.seconds() * 1000L;
        this.sliceMillis = Math.max(1, Math.ceilDiv(windowMillis, SLICES));
        forget();
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
        othersOf = Long.MIN_VALUE;
        Arrays.fill(slice, Long.MIN_VALUE);
    }

    /** Takes the next reading. */
    void update(Instant at, double value) {
        long time = at.toEpochMilli();
        if (any && time <= lastTime) {
            return;
        }
        switch (keeps) {
            case AREA -> {
                if (any) {
                    cover(lastTime, Math.min(time, lastTime + windowMillis / 4), lastValue);
                }
            }
            case EXTREMES -> {
                int place = open(time);
                one[place] = Double.isNaN(one[place]) ? value : Math.min(one[place], value);
                two[place] = Double.isNaN(two[place]) ? value : Math.max(two[place], value);
            }
            case FIRST -> {
                int place = open(time);
                if (Double.isNaN(one[place])) {
                    one[place] = time;
                    two[place] = value;
                }
            }
        }
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
            one[place] += value * (end - start);
            two[place] += end - start;
            start = end;
        }
    }

    private int open(long time) {
        long number = Math.floorDiv(time, sliceMillis);
        int place = Math.floorMod(number, KEPT);
        if (slice[place] != number) {
            slice[place] = number;
            one[place] = keeps == Keeps.AREA ? 0 : NONE;
            two[place] = keeps == Keeps.AREA ? 0 : NONE;
        }
        return place;
    }

    /** What the window comes to; empty while too little is known. */
    OptionalDouble value() {
        if (!any) {
            return OptionalDouble.empty();
        }
        long newest = Math.floorDiv(lastTime, sliceMillis);
        if (othersOf != newest) {
            addUp(newest);
        }
        int place = Math.floorMod(newest, KEPT);
        boolean isOpen = slice[place] == newest;
        return switch (measure) {
            case Measure.Last last -> OptionalDouble.of(lastValue);
            case Measure.Mean mean -> mean(place, isOpen, 0);
            case Measure.Deviation off -> mean(place, isOpen, lastValue);
            case Measure.Minimum low -> OptionalDouble.of(least(othersOne, one[place]));
            case Measure.Maximum high -> OptionalDouble.of(most(othersTwo, two[place]));
            case Measure.Range spread -> OptionalDouble.of(most(othersTwo, two[place]) - least(othersOne, one[place]));
            case Measure.Rate slope -> slope(place);
        };
    }

    private void addUp(long newest) {
        othersOf = newest;
        othersOne = keeps == Keeps.AREA ? 0 : NONE;
        othersTwo = keeps == Keeps.AREA ? 0 : NONE;
        for (int i = 0; i < KEPT; i++) {
            if (slice[i] < newest && slice[i] >= newest - SLICES) {
                switch (keeps) {
                    case AREA -> {
                        othersOne += one[i];
                        othersTwo += two[i];
                    }
                    case EXTREMES -> {
                        othersOne = least(othersOne, one[i]);
                        othersTwo = most(othersTwo, two[i]);
                    }
                    case FIRST -> {
                        if (Double.isNaN(othersOne) || one[i] < othersOne) {
                            othersOne = one[i];
                            othersTwo = two[i];
                        }
                    }
                }
            }
        }
    }

    private static double least(double one, double other) {
        return Double.isNaN(one) ? other : Math.min(one, other);
    }

    private static double most(double one, double other) {
        return Double.isNaN(one) ? other : Math.max(one, other);
    }

    /** The mean, or how far a value is off it. */
    private OptionalDouble mean(int place, boolean isOpen, double value) {
        double area = othersOne + (isOpen ? one[place] : 0);
        double covered = othersTwo + (isOpen ? two[place] : 0);
        if (covered * 2 < windowMillis) {
            return OptionalDouble.empty();
        }
        return OptionalDouble.of(measure instanceof Measure.Deviation ? value - area / covered : area / covered);
    }

    private OptionalDouble slope(int place) {
        double from = Double.isNaN(othersOne) ? one[place] : othersOne;
        double value = Double.isNaN(othersOne) ? two[place] : othersTwo;
        double span = lastTime - from;
        return span * 2 >= windowMillis
                ? OptionalDouble.of((lastValue - value) * 3_600_000 / span)
                : OptionalDouble.empty();
    }

    /** As it is kept over a restart: what it measures, the newest reading, and each slice that counts. */
    byte[] toBytes() {
        long newest = Math.floorDiv(lastTime, sliceMillis);
        ByteBuffer bytes = ByteBuffer.allocate(HEADER_BYTES + KEPT * SLICE_BYTES)
                .putInt(measure.getClass().getSimpleName().hashCode())
                .putInt(measure.seconds())
                .put((byte) (any ? 1 : 0))
                .putLong(lastTime)
                .putDouble(lastValue);
        for (int i = 0; i < KEPT; i++) {
            if (any && slice[i] <= newest && slice[i] >= newest - SLICES) {
                bytes.putLong(slice[i]).putDouble(one[i]).putDouble(two[i]);
            }
        }
        return Arrays.copyOf(bytes.array(), bytes.position());
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
            int place = Math.floorMod(number, KEPT);
            window.slice[place] = number;
            window.one[place] = bytes.getDouble();
            window.two[place] = bytes.getDouble();
        }
        return window;
    }
}
