package org.openpasture.core.series;

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

  /**
   * Reduces to about {@code 2 * buckets} readings that draw the same line: of each equal stretch of time the lowest and
   * the highest reading are kept at their own moments, and the first and last of all, so that a spike of one sample is
   * still seen. Slices that are small already come back as they are. O(n).
   */
  public SeriesSlice reduce(int buckets) {
    if (buckets < 1) {
      throw new IllegalArgumentException("at least one bucket");
    }
    if (size() <= buckets * 2 + 2) {
      return this;
    }
    int[] kept = new int[buckets * 2 + 2];
    int count = 0;
    kept[count++] = 0;
    long start = times[0];
    double width = (double) (times[size() - 1] - start + 1) / buckets;
    int i = 0;
    while (i < size()) {
      int bucket = (int) ((times[i] - start) / width);
      int low = i;
      int high = i;
      while (i < size() && (int) ((times[i] - start) / width) == bucket) {
        if (values[i] < values[low]) {
          low = i;
        }
        if (values[i] > values[high]) {
          high = i;
        }
        i++;
      }
      count = keep(kept, count, Math.min(low, high));
      count = keep(kept, count, Math.max(low, high));
    }
    count = keep(kept, count, size() - 1);
    return pick(kept, count);
  }

  private static int keep(int[] kept, int count, int index) {
    if (kept[count - 1] >= index) {
      return count;
    }
    kept[count] = index;
    return count + 1;
  }

  private SeriesSlice pick(int[] indexes, int count) {
    long[] t = new long[count];
    double[] v = new double[count];
    byte[] q = new byte[count];
    for (int i = 0; i < count; i++) {
      t[i] = times[indexes[i]];
      v[i] = values[indexes[i]];
      q[i] = qualities[indexes[i]];
    }
    return new SeriesSlice(t, v, q);
  }
}
