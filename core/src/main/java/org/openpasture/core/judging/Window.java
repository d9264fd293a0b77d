package org.openpasture.core.judging;

import java.nio.ByteBuffer;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.OptionalDouble;
import java.util.stream.IntStream;
import org.openpasture.core.quantity.Averaging;
import org.openpasture.core.rule.Measure;
import org.openpasture.core.series.Trend;

/**
 * The memory of a measure over one point: a window of time up to its newest reading, in slices, so that a reading costs
 * the same however many there were. A value stands until the next one, but not for longer than {@link Averaging#stands}
 * says; a mean is known once at least half of the window is covered, a slope once its readings span at least half of
 * it. The far end of the window is exact to a slice. Times never run back: a reading that is not newer is left out. Not
 * thread-safe.
 */
final class Window {
    /** Slices of a window. */
    private static final int SLICES = 32;

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
    /** For how long a value stands where none follows. */
    private final long standsMillis;
    /** How many slices count. */
    private final int slices;
    /** How many are kept: one more, since the newest is not full yet. */
    private final int kept;
    /** Which slice of time each place of the ring holds. */
    private final long[] slice;

    private final double[] one;
    private final double[] two;
    private boolean any;
    private long lastTime;
    private double lastValue;
    /** What the slices before the newest come to, which changes only when that is another one. */
    private long othersOf = Long.MIN_VALUE;

    /** Of a forecast: the line's value at time 0 and its slope for each millisecond. */
    private double othersOne;

    private double othersTwo;

    Window(Measure measure) {
        this.measure = measure;
        this.keeps = switch (measure) {
            case Measure.Last last -> Keeps.EXTREMES;
            case Measure.Mean mean -> Keeps.AREA;
            case Measure.Deviation off -> Keeps.AREA;
            case Measure.Forecast ahead -> Keeps.AREA;
            case Measure.Difference apart -> Keeps.EXTREMES;
            case Measure.Minimum low -> Keeps.EXTREMES;
            case Measure.Maximum high -> Keeps.EXTREMES;
            case Measure.Range spread -> Keeps.EXTREMES;
            case Measure.Rate slope -> Keeps.FIRST;
        };
        this.windowMillis = measure.seconds() * 1000L;
        if (measure instanceof Measure.Forecast) {
            sliceMillis = Trend.step(Duration.ofMillis(windowMillis)).toMillis();
            standsMillis = sliceMillis;
        } else {
            sliceMillis = Math.max(1, Math.ceilDiv(windowMillis, SLICES));
            standsMillis = Averaging.stands(Duration.ofMillis(windowMillis)).toMillis();
        }
        slices = (int) Math.ceilDiv(windowMillis, sliceMillis);
        kept = slices + 1;
        slice = new long[kept];
        one = new double[kept];
        two = new double[kept];
        forget();
    }

    /** Whether it comes to what is still ahead. */
    boolean foresees() {
        return measure instanceof Measure.Forecast;
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
                    cover(lastTime, Math.min(time, lastTime + standsMillis), lastValue);
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
        int place = Math.floorMod(number, kept);
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
        int place = Math.floorMod(newest, kept);
        boolean isOpen = slice[place] == newest;
        return switch (measure) {
            case Measure.Last last -> OptionalDouble.of(lastValue);
            case Measure.Difference apart -> OptionalDouble.of(lastValue);
            case Measure.Forecast(int seconds, int ahead) ->
                Double.isNaN(othersOne)
                        ? OptionalDouble.empty()
                        : OptionalDouble.of(othersOne + othersTwo * (lastTime + ahead * 1_000.0));
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
        if (measure instanceof Measure.Forecast) {
            fit(newest);
            return;
        }
        othersOne = keeps == Keeps.AREA ? 0 : NONE;
        othersTwo = keeps == Keeps.AREA ? 0 : NONE;
        for (int i = 0; i < kept; i++) {
            if (slice[i] < newest && slice[i] >= newest - slices) {
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

    /** The line through the means of the slices before the newest; a level one where there is no clear trend. */
    private void fit(long newest) {
        int[] places = IntStream.range(0, kept)
                .filter(i -> slice[i] < newest && slice[i] >= newest - slices && two[i] > 0)
                .boxed()
                .sorted((i, j) -> Long.compare(slice[i], slice[j]))
                .mapToInt(i -> i)
                .toArray();
        othersOne = NONE;
        othersTwo = 0;
        if (places.length < Trend.LEAST) {
            return;
        }
        double[] means = Arrays.stream(places).mapToDouble(i -> one[i] / two[i]).toArray();
        // Counted in slices from the newest on, so that nothing is lost by large numbers.
        double[] times =
                Arrays.stream(places).mapToDouble(i -> slice[i] + 0.5 - newest).toArray();
        if ((times[times.length - 1] - times[0] + 1) * 2 < slices) {
            return;
        }
        Trend trend = Trend.of(times, means);
        if (trend.isClear()) {
            othersTwo = trend.slope() / sliceMillis;
            othersOne = trend.present() - trend.slope() * (times[times.length - 1] + newest);
        } else {
            othersOne = means[means.length - 1];
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
        ByteBuffer bytes = ByteBuffer.allocate(HEADER_BYTES + kept * SLICE_BYTES)
                .putInt(measure.getClass().getSimpleName().hashCode())
                .putInt(measure.seconds())
                .put((byte) (any ? 1 : 0))
                .putLong(lastTime)
                .putDouble(lastValue);
        for (int i = 0; i < kept; i++) {
            if (any && slice[i] <= newest && slice[i] >= newest - slices) {
                bytes.putLong(slice[i]).putDouble(one[i]).putDouble(two[i]);
            }
        }
        return Arrays.copyOf(bytes.array(), bytes.position());
    }

    /** One that goes on from what was kept; an empty one if that was of another measure. */
    static Window of(Measure measure, byte[] bytesKept) {
        Window window = new Window(measure);
        ByteBuffer bytes = ByteBuffer.wrap(bytesKept);
        if (bytesKept.length < HEADER_BYTES
                || bytes.getInt() != measure.getClass().getSimpleName().hashCode()
                || bytes.getInt() != measure.seconds()) {
            return window;
        }
        window.any = bytes.get() == 1;
        window.lastTime = bytes.getLong();
        window.lastValue = bytes.getDouble();
        while (bytes.remaining() >= SLICE_BYTES) {
            long number = bytes.getLong();
            int place = Math.floorMod(number, window.kept);
            window.slice[place] = number;
            window.one[place] = bytes.getDouble();
            window.two[place] = bytes.getDouble();
        }
        return window;
    }
}
