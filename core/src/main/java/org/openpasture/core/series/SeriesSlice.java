package org.openpasture.core.series;

import java.time.Instant;
import java.util.Arrays;
import java.util.function.BiConsumer;
import org.openpasture.core.quantity.UnitChange;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;

/**
 * A stretch of readings as parallel arrays, ordered by time. The arrays belong to the slice; treat them as read-only.
 *
 * @param times epoch milliseconds, strictly ascending
 * @param values in the point's unit
 * @param qualities codes of {@link org.openpasture.core.reading.Quality}
 */
public record SeriesSlice(long[] times, double[] values, byte[] qualities) {
    public int size() {
        return times.length;
    }

    public static SeriesSlice empty() {
        return new SeriesSlice(new long[0], new double[0], new byte[0]);
    }

    /**
     * The readings with {@code from <= time < until}, in epoch milliseconds; this slice itself if that is all of it.
     */
    public SeriesSlice between(long from, long until) {
        int begin = indexOf(from);
        int end = Math.max(begin, indexOf(until));
        return begin == 0 && end == size() ? this : part(begin, end);
    }

    /** The readings outside of a range. */
    public SeriesSlice without(long from, long until) {
        SeriesSlice taken = between(from, until);
        if (taken.size() == 0) {
            return this;
        }
        Builder kept = new Builder(size() - taken.size());
        kept.addAll(part(0, indexOf(from)));
        kept.addAll(part(Math.max(indexOf(from), indexOf(until)), size()));
        return kept.slice();
    }

    /** The readings at moments of which another slice has none. */
    public SeriesSlice withoutTimesOf(SeriesSlice other) {
        Builder kept = new Builder(size());
        for (int i = 0; i < size(); i++) {
            if (Arrays.binarySearch(other.times, times[i]) < 0) {
                kept.add(this, i);
            }
        }
        return kept.slice();
    }

    /** The same readings in another unit; this slice itself if that is the same one. */
    public SeriesSlice in(UnitChange change) {
        return change.changesNothing() ? this : new SeriesSlice(times, change.of(values), qualities);
    }

    /** The readings from an index up to another, as a copy. */
    public SeriesSlice part(int begin, int end) {
        return new SeriesSlice(
                Arrays.copyOfRange(times, begin, end),
                Arrays.copyOfRange(values, begin, end),
                Arrays.copyOfRange(qualities, begin, end));
    }

    /** The index of the first reading at or after a moment; {@link #size()} if there is none. */
    public int indexOf(long time) {
        int at = Arrays.binarySearch(times, time);
        return at >= 0 ? at : -at - 1;
    }

    public Reading reading(int index) {
        return new Reading(Instant.ofEpochMilli(times[index]), values[index], Quality.ofCode(qualities[index]));
    }

    /** Both together in order; where both have a reading of one moment, that of {@code newer} is taken. O(n + m). */
    public SeriesSlice merge(SeriesSlice newer) {
        if (newer.size() == 0) {
            return this;
        }
        if (size() == 0) {
            return newer;
        }
        Builder merged = new Builder(size() + newer.size());
        int i = 0;
        int k = 0;
        while (i < size() || k < newer.size()) {
            if (k == newer.size() || i < size() && times[i] < newer.times[k]) {
                merged.add(this, i++);
            } else {
                if (i < size() && times[i] == newer.times[k]) {
                    i++;
                }
                merged.add(newer, k++);
            }
        }
        return merged.slice();
    }

    /**
     * Calls for each moment of which both have a reading, with the older's reading and the newer's value, where the
     * values differ.
     */
    public static void replaced(SeriesSlice older, SeriesSlice newer, BiConsumer<Reading, Double> each) {
        int i = 0;
        for (int k = 0; k < newer.size() && i < older.size(); k++) {
            while (i < older.size() && older.times[i] < newer.times[k]) {
                i++;
            }
            if (i < older.size() && older.times[i] == newer.times[k] && older.values[i] != newer.values[k]) {
                each.accept(older.reading(i), newer.values[k]);
            }
        }
    }

    /** Gathers readings in ascending order. */
    static final class Builder {
        private long[] times;
        private double[] values;
        private byte[] qualities;
        private int size;

        Builder(int room) {
            times = new long[Math.max(4, room)];
            values = new double[times.length];
            qualities = new byte[times.length];
        }

        void add(SeriesSlice from, int index) {
            add(from.times[index], from.values[index], from.qualities[index]);
        }

        void add(long time, double value, byte quality) {
            room(1);
            times[size] = time;
            values[size] = value;
            qualities[size++] = quality;
        }

        /** Adds a reading if it comes after all others. */
        void addLater(long time, double value, byte quality) {
            if (size == 0 || time > times[size - 1]) {
                add(time, value, quality);
            }
        }

        void addAll(SeriesSlice from) {
            room(from.size());
            System.arraycopy(from.times, 0, times, size, from.size());
            System.arraycopy(from.values, 0, values, size, from.size());
            System.arraycopy(from.qualities, 0, qualities, size, from.size());
            size += from.size();
        }

        private void room(int more) {
            if (size + more > times.length) {
                int room = Math.max(size + more, size * 2);
                times = Arrays.copyOf(times, room);
                values = Arrays.copyOf(values, room);
                qualities = Arrays.copyOf(qualities, room);
            }
        }

        SeriesSlice slice() {
            return size == times.length
                    ? new SeriesSlice(times, values, qualities)
                    : new SeriesSlice(
                            Arrays.copyOf(times, size), Arrays.copyOf(values, size), Arrays.copyOf(qualities, size));
        }
    }
}
