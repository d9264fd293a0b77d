package org.openpasture.core.health;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;

/**
 * Looks through the readings of one point, in the order of their times, for gaps, values that are stuck, spikes, jumps,
 * and values that cannot be real. What is far is measured by the point itself: ten times its usual step, which is the
 * median absolute step as a standard deviation. Not thread-safe.
 */
public final class Examination {
    private static final int GAP_INTERVALS = 3;
    private static final int STUCK_READINGS = 20;
    private static final Duration STUCK_FOR = Duration.ofHours(2);
    private static final double FAR = 10;
    /** The median absolute deviation of a normal distribution, as a standard deviation. */
    private static final double TO_DEVIATION = 1.4826;
    /** Fewer readings say nothing of what is usual. */
    private static final int LEAST = 20;

    private static final int MOST_JUMPS = 5;

    private final Map<Finding.Kind, Finding> found = new EnumMap<>(Finding.Kind.class);
    private final Instant from;
    private final Instant until;
    private long[] times = new long[256];
    private double[] values = new double[256];
    private int count;
    private long[] allTimes = new long[256];
    private int all;

    private final boolean isNew;

    /**
     * Begins for a stretch of time.
     *
     * @param isNew whether there is nothing before it, so that what came first is its beginning and no end of a gap
     */
    public Examination(Instant from, Instant until, boolean isNew) {
        this.from = from;
        this.until = until;
        this.isNew = isNew;
    }

    /**
     * What was found.
     *
     * @param readings how many there were
     * @param interval the usual time between two; zero if there are too few
     * @param covered share of the time, 0 to 1, in which readings came as usual
     * @param findings each kind once at most, the worst first
     */
    public record Result(int readings, Duration interval, double covered, List<Finding> findings) {}

    /** Takes the next reading. */
    public void take(Reading reading) {
        long time = reading.time().toEpochMilli();
        allTimes = all == allTimes.length ? Arrays.copyOf(allTimes, all * 2) : allTimes;
        allTimes[all++] = time;
        if (reading.quality() == Quality.BAD) {
            note(Finding.Kind.IMPOSSIBLE, time, time);
            return;
        }
        if (count == times.length) {
            times = Arrays.copyOf(times, count * 2);
            values = Arrays.copyOf(values, count * 2);
        }
        times[count] = time;
        values[count++] = reading.value();
    }

    /**
     * What was found in all that was taken.
     *
     * @param expected how often the device should report; zero if nobody knows
     * @param changes whether the value usually moves; not for switches and counters
     */
    public Result result(Duration expected, boolean changes) {
        Duration interval = interval(expected);
        long missing = gaps(interval);
        if (changes && count >= LEAST) {
            steps(stuck(), interval.toMillis() * GAP_INTERVALS);
        }
        long whole = Math.max(1, until.toEpochMilli() - begin());
        double covered = all == 0 ? 0 : Math.clamp(1 - missing / (double) whole, 0, 1);
        // What jumps again and again moves in steps, and nothing is wrong with that.
        found.computeIfPresent(Finding.Kind.JUMP, (kind, jumps) -> jumps.times() > MOST_JUMPS ? null : jumps);
        List<Finding> findings = new ArrayList<>(found.values());
        return new Result(all, interval, covered, findings);
    }

    private long begin() {
        return isNew && all > 0 ? allTimes[0] : from.toEpochMilli();
    }

    /** The median time between two readings, or what is expected if that is longer. */
    private Duration interval(Duration expected) {
        if (all < 3) {
            return expected;
        }
        long[] apart = new long[all - 1];
        for (int i = 1; i < all; i++) {
            apart[i - 1] = allTimes[i] - allTimes[i - 1];
        }
        Arrays.sort(apart);
        Duration median = Duration.ofMillis(apart[apart.length / 2]);
        return median.compareTo(expected) > 0 ? median : expected;
    }

    /** Returns for how many milliseconds readings are missing. */
    private long gaps(Duration interval) {
        if (all == 0 || interval.isZero()) {
            return 0;
        }
        long allowed = interval.toMillis() * GAP_INTERVALS;
        long missing = 0;
        long before = begin();
        for (int i = 0; i <= all; i++) {
            long next = i < all ? allTimes[i] : until.toEpochMilli();
            if (next - before > allowed) {
                note(Finding.Kind.GAP, before, next);
                missing += next - before - interval.toMillis();
            }
            before = next;
        }
        return missing;
    }

    /**
     * A value that stays exactly the same, where consecutive readings usually differ.
     *
     * @return the places of values that are stuck
     */
    private BitSet stuck() {
        BitSet places = new BitSet(count);
        int same = 0;
        for (int i = 1; i < count; i++) {
            same += values[i] == values[i - 1] ? 1 : 0;
        }
        int begin = 0;
        for (int i = 1; i <= count; i++) {
            if (i < count && values[i] == values[begin]) {
                continue;
            }
            int run = i - begin;
            // Of all other readings most differ from the one before.
            boolean others = count - run >= LEAST && same - (run - 1) < (count - run) / 2;
            if (run >= STUCK_READINGS && times[i - 1] - times[begin] >= STUCK_FOR.toMillis() && others) {
                note(Finding.Kind.STUCK, times[begin], times[i - 1]);
                places.set(begin, i);
            }
            begin = i;
        }
        return places;
    }

    /** Steps that are far; not those that follow upon a gap or upon a value that was stuck. */
    private void steps(BitSet stuck, long gapMillis) {
        double far = FAR * usualStep();
        if (far <= 0) {
            return;
        }
        for (int i = 1; i < count; i++) {
            double step = values[i] - values[i - 1];
            boolean follows = stuck.get(i - 1) || gapMillis > 0 && times[i] - times[i - 1] > gapMillis;
            if (Math.abs(step) <= far || follows) {
                continue;
            }
            boolean returns = i + 1 < count && Math.abs(values[i + 1] - values[i - 1]) <= far / 2;
            if (returns) {
                note(Finding.Kind.SPIKE, times[i], times[i]);
                // The way back is no event of its own.
                i++;
            } else {
                note(Finding.Kind.JUMP, times[i], times[i]);
            }
        }
    }

    private double usualStep() {
        double[] apart = new double[count - 1];
        for (int i = 1; i < count; i++) {
            apart[i - 1] = Math.abs(values[i] - values[i - 1]);
        }
        Arrays.sort(apart);
        return TO_DEVIATION * apart[apart.length / 2];
    }

    private void note(Finding.Kind kind, long begin, long end) {
        Duration length = Duration.ofMillis(end - begin);
        Instant first = Instant.ofEpochMilli(begin);
        Instant last = Instant.ofEpochMilli(end);
        found.merge(
                kind,
                new Finding(kind, 1, first, last, length),
                (before, one) -> new Finding(
                        kind,
                        before.times() + 1,
                        before.from(),
                        last,
                        before.longest().compareTo(length) > 0 ? before.longest() : length));
    }
}
