package org.openpasture.core.series;

import java.time.Instant;
import java.util.Arrays;
import java.util.Optional;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;

/**
 * The readings of one point in memory, ordered by time, one per moment: a reading for a time that is already there
 * replaces it. Appending in order is O(1) amortised, a late reading O(n). Not thread-safe; times are whole milliseconds.
 */
public final class PointSeries {
  private long[] times = new long[16];
  private double[] values = new double[16];
  private byte[] qualities = new byte[16];
  private int size;

  /** Adds a reading at its place. */
  public void add(Reading reading) {
    add(reading.time().toEpochMilli(), reading.value(), reading.quality().code());
  }

  /** Adds a reading at its place, by epoch milliseconds and quality code. */
  public void add(long time, double value, int quality) {
    if (size == times.length) {
      int room = size + (size >> 1);
      times = Arrays.copyOf(times, room);
      values = Arrays.copyOf(values, room);
      qualities = Arrays.copyOf(qualities, room);
    }
    int at = size;
    if (size > 0 && time <= times[size - 1]) {
      at = Arrays.binarySearch(times, 0, size, time);
      if (at >= 0) {
        values[at] = value;
        qualities[at] = (byte) quality;
        return;
      }
      at = -at - 1;
      System.arraycopy(times, at, times, at + 1, size - at);
      System.arraycopy(values, at, values, at + 1, size - at);
      System.arraycopy(qualities, at, qualities, at + 1, size - at);
    }
    times[at] = time;
    values[at] = value;
    qualities[at] = (byte) quality;
    size++;
  }

  public int size() {
    return size;
  }

  public Optional<Reading> last() {
    return size == 0 ? Optional.empty() : Optional.of(reading(size - 1));
  }

  /** The readings with {@code from <= time < until}, as a copy that nobody else changes. */
  public SeriesSlice slice(Instant from, Instant until) {
    int begin = indexOf(from.toEpochMilli());
    int end = Math.max(begin, indexOf(until.toEpochMilli()));
    return new SeriesSlice(Arrays.copyOfRange(times, begin, end), Arrays.copyOfRange(values, begin, end),
        Arrays.copyOfRange(qualities, begin, end));
  }

  private int indexOf(long time) {
    int at = Arrays.binarySearch(times, 0, size, time);
    return at >= 0 ? at : -at - 1;
  }

  private Reading reading(int index) {
    return new Reading(Instant.ofEpochMilli(times[index]), values[index], Quality.ofCode(qualities[index]));
  }
}
