package org.openpasture.core.series;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.openpasture.core.reading.Quality;

/**
 * Reduces a range to about {@code 2 * buckets} readings that draw the same line: of each equal stretch of time the
 * lowest and the highest reading are kept at their own moments, and the first and the last of all, so that a spike of
 * one sample is still seen. Takes readings or summaries in order of time, piece by piece, in constant memory. Ranges
 * with few readings come back as they are. Readings of bad quality are kept only where a bucket has no other.
 */
public final class Reducer {
    private static final int MOST_GAPS = 1_000;
    private static final int NEIGHBOURS = 6;
    private static final byte EMPTY = 0;
    private static final byte ONLY_BAD = 1;
    private static final byte USABLE = 2;
    private final long from;
    private final double width;
    private final int few;
    private final byte[] state;
    private final long[] lowAt;
    private final long[] highAt;
    private final double[] low;
    private final double[] high;
    private final byte[] lowQuality;
    private final byte[] highQuality;
    private final List<Gap> gaps = new ArrayList<>();
    private final SeriesSlice.Builder all;
    private boolean exact = true;
    private int kept;
    private long readings;
    private final long leastGapMillis;
    private final long[] lastSteps = new long[NEIGHBOURS];
    private int steps;
    private final SeriesSlice.Builder first = new SeriesSlice.Builder(1);
    private boolean any;
    private long lastAt;
    private double last;
    private byte lastQuality;

    /**
     * For a range of time.
     *
     * @param from epoch ms
     * @param until epoch ms, after {@code from}
     * @param typicalMillis the interval at which the point should report: no shorter silence is a gap; 0 if it is not
     *     known
     */
    public Reducer(long from, long until, int buckets, long typicalMillis) {
        if (buckets < 1 || until <= from) {
            throw new IllegalArgumentException("a range that is not empty, and at least one bucket");
        }
        this.from = from;
        this.width = (double) (until - from) / buckets;
        this.state = new byte[buckets];
        this.lowAt = new long[buckets];
        this.highAt = new long[buckets];
        this.low = new double[buckets];
        this.high = new double[buckets];
        this.lowQuality = new byte[buckets];
        this.highQuality = new byte[buckets];
        this.few = buckets * 2 + 2;
        this.all = new SeriesSlice.Builder(Math.min(few, 1024));
        this.leastGapMillis = typicalMillis <= 0 ? 0 : Pace.gapMillis(typicalMillis);
    }

    /** The next readings. */
    public void add(SeriesSlice slice) {
        for (int i = 0; i < slice.size(); i++) {
            lookForGap(slice, i);
            if (exact && kept < few) {
                all.add(slice, i);
                kept++;
            } else {
                exact = false;
            }
            take(slice.times()[i], slice.values()[i], slice.qualities()[i]);
        }
        readings += slice.size();
    }

    /** The next summary, in place of the readings that it stands for. */
    public void add(Summary summary, long widthMillis) {
        readings += summary.count() + summary.bad();
        if (summary.count() == 0) {
            return;
        }
        exact = false;
        long start = summary.start().toEpochMilli();
        if (any && start - lastAt > Math.max(leastGapMillis, widthMillis)) {
            addGap(start);
        }
        byte good = (byte) Quality.GOOD.code();
        boolean lowFirst = !summary.minAt().isAfter(summary.maxAt());
        take(
                (lowFirst ? summary.minAt() : summary.maxAt()).toEpochMilli(),
                lowFirst ? summary.min() : summary.max(),
                good);
        take(
                (lowFirst ? summary.maxAt() : summary.minAt()).toEpochMilli(),
                lowFirst ? summary.max() : summary.min(),
                good);
        lastAt = Math.max(lastAt, start + widthMillis - 1);
        last = summary.last();
    }

    /**
     * A step that is far longer than what is usual just before and just after it. The neighbours decide, because one
     * range may hold coarse history and fine live readings.
     */
    private void lookForGap(SeriesSlice slice, int index) {
        if (!any) {
            return;
        }
        long step = slice.times()[index] - lastAt;
        if (steps > 0 && step > Pace.gapMillis(lastSteps[(steps - 1) % NEIGHBOURS])) {
            long[] before = Arrays.copyOf(lastSteps, Math.min(steps, NEIGHBOURS));
            long usual = Math.max(
                    Pace.median(before),
                    Pace.typicalMillis(slice.part(index, Math.min(slice.size(), index + NEIGHBOURS))));
            if (step > Math.max(leastGapMillis, Pace.gapMillis(usual))) {
                addGap(slice.times()[index]);
            }
        }
        lastSteps[steps++ % NEIGHBOURS] = step;
    }

    private void addGap(long until) {
        if (gaps.size() < MOST_GAPS) {
            gaps.add(new Gap(Instant.ofEpochMilli(lastAt), Instant.ofEpochMilli(until)));
        }
    }

    private void take(long time, double value, byte quality) {
        if (!any) {
            first.add(time, value, quality);
            any = true;
        }
        lastAt = time;
        last = value;
        lastQuality = quality;
        int index = Math.clamp((long) ((time - from) / width), 0, state.length - 1);
        byte now = quality >= Quality.BAD.code() ? ONLY_BAD : USABLE;
        if (now < state[index]) {
            return;
        }
        boolean begins = state[index] == EMPTY || now > state[index];
        if (begins || value < low[index]) {
            low[index] = value;
            lowAt[index] = time;
            lowQuality[index] = quality;
        }
        if (begins || value > high[index]) {
            high[index] = value;
            highAt[index] = time;
            highQuality[index] = quality;
        }
        state[index] = now;
    }

    /** What was taken so far, reduced. */
    public Drawn result() {
        if (exact) {
            return new Drawn(all.slice(), readings, List.copyOf(gaps));
        }
        SeriesSlice.Builder drawn = first;
        for (int i = 0; i < state.length; i++) {
            if (state[i] != EMPTY) {
                boolean lowFirst = lowAt[i] <= highAt[i];
                drawn.addLater(
                        lowFirst ? lowAt[i] : highAt[i],
                        lowFirst ? low[i] : high[i],
                        lowFirst ? lowQuality[i] : highQuality[i]);
                drawn.addLater(
                        lowFirst ? highAt[i] : lowAt[i],
                        lowFirst ? high[i] : low[i],
                        lowFirst ? highQuality[i] : lowQuality[i]);
            }
        }
        drawn.addLater(lastAt, last, lastQuality);
        return new Drawn(drawn.slice(), readings, List.copyOf(gaps));
    }
}
