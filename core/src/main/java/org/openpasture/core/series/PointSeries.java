package org.openpasture.core.series;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;

/**
 * The readings of one point in memory, ordered by time, one per moment: a reading for a time that is already there
 * replaces it, and what it replaced is remembered. Appending is O(1) amortised, a reading that is a little late costs
 * the move of those after it; much later ones are put aside and sorted in when somebody looks. Not thread-safe; times
 * are whole milliseconds.
 */
public final class PointSeries {
    private static final int CHEAP_TO_MOVE = 2_048;
    /** Time and bits of the value in turn, so that a reading that is added touches one place in memory. */
    private long[] timesAndBits;
    /** Null while all are good. */
    private byte @Nullable [] qualities;

    private int size;
    private final List<Reading> aside = new ArrayList<>();
    private final List<Replaced> replaced = new ArrayList<>();

    /** A value that another one of the same moment took the place of. */
    public record Replaced(Reading old, double by) {}

    public PointSeries() {
        this(16);
    }

    /** A series with room for so many readings. */
    public PointSeries(int room) {
        timesAndBits = new long[2 * Math.max(16, room)];
    }

    /** A series with the readings of a slice. */
    public static PointSeries of(SeriesSlice slice) {
        PointSeries series = new PointSeries(slice.size());
        series.use(slice);
        return series;
    }

    private void use(SeriesSlice slice) {
        size = 0;
        for (int i = 0; i < slice.size(); i++) {
            put(slice.times()[i], slice.values()[i], slice.qualities()[i]);
        }
    }

    /** Adds a reading at its place. */
    public void add(Reading reading) {
        long time = reading.time().toEpochMilli();
        if (size > 0 && time < timeAt(size - 1) && size - indexOf(time) > CHEAP_TO_MOVE) {
            aside.add(reading);
        } else {
            put(time, reading.value(), reading.quality().code());
        }
    }

    /** Adds a reading at its place, by epoch milliseconds and quality code. */
    public void add(long time, double value, int quality) {
        add(new Reading(Instant.ofEpochMilli(time), value, Quality.ofCode(quality)));
    }

    private void put(long time, double value, int quality) {
        if (2 * size == timesAndBits.length) {
            timesAndBits = Arrays.copyOf(timesAndBits, timesAndBits.length * 2);
            qualities = qualities == null ? null : Arrays.copyOf(qualities, timesAndBits.length / 2);
        }
        int at = size;
        if (size > 0 && time <= timeAt(size - 1)) {
            at = indexOf(time);
            if (timeAt(at) == time) {
                if (valueAt(at) != value) {
                    replaced.add(new Replaced(reading(at), value));
                }
                set(at, time, value, quality);
                return;
            }
            System.arraycopy(timesAndBits, 2 * at, timesAndBits, 2 * at + 2, 2 * (size - at));
            if (qualities != null) {
                System.arraycopy(qualities, at, qualities, at + 1, size - at);
            }
        }
        size++;
        set(at, time, value, quality);
    }

    private void set(int at, long time, double value, int quality) {
        timesAndBits[2 * at] = time;
        timesAndBits[2 * at + 1] = Double.doubleToRawLongBits(value);
        if (qualities == null && quality != 0) {
            qualities = new byte[timesAndBits.length / 2];
        }
        if (qualities != null) {
            qualities[at] = (byte) quality;
        }
    }

    private long timeAt(int index) {
        return timesAndBits[2 * index];
    }

    private double valueAt(int index) {
        return Double.longBitsToDouble(timesAndBits[2 * index + 1]);
    }

    /** Sorts in what was put aside, the later of one moment winning. */
    private void sortIn() {
        if (aside.isEmpty()) {
            return;
        }
        PointSeries late = new PointSeries();
        List<Reading> sorted = new ArrayList<>(aside);
        aside.clear();
        sorted.sort(Comparator.comparing(Reading::time));
        sorted.forEach(late::add);
        SeriesSlice mine = part(0, size);
        SeriesSlice theirs = late.part(0, late.size);
        SeriesSlice.replaced(mine, theirs, (old, by) -> replaced.add(new Replaced(old, by)));
        replaced.addAll(late.replaced);
        use(mine.merge(theirs));
    }

    public int size() {
        sortIn();
        return size;
    }

    public Optional<Reading> last() {
        return size == 0 ? Optional.empty() : Optional.of(reading(size - 1));
    }

    /** The values that others took the place of. */
    public List<Replaced> replaced() {
        sortIn();
        return List.copyOf(replaced);
    }

    /** The readings with {@code from <= time < until}, as a copy that nobody else changes. */
    public SeriesSlice slice(Instant from, Instant until) {
        return slice(from.toEpochMilli(), until.toEpochMilli());
    }

    /** The same, by epoch milliseconds. */
    public SeriesSlice slice(long from, long until) {
        sortIn();
        int begin = indexOf(from);
        return part(begin, Math.max(begin, indexOf(until)));
    }

    /** All readings, as a copy that nobody else changes. */
    public SeriesSlice slice() {
        sortIn();
        return part(0, size);
    }

    private SeriesSlice part(int begin, int end) {
        long[] times = new long[end - begin];
        double[] values = new double[end - begin];
        for (int i = begin; i < end; i++) {
            times[i - begin] = timeAt(i);
            values[i - begin] = valueAt(i);
        }
        return new SeriesSlice(
                times, values, qualities == null ? new byte[end - begin] : Arrays.copyOfRange(qualities, begin, end));
    }

    /** The place of the first reading at or after a moment. */
    private int indexOf(long time) {
        int low = 0;
        int high = size;
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (timeAt(middle) < time) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }

    private Reading reading(int index) {
        return new Reading(
                Instant.ofEpochMilli(timeAt(index)),
                valueAt(index),
                Quality.ofCode(qualities == null ? 0 : qualities[index]));
    }
}
