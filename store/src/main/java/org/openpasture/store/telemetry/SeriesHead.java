package org.openpasture.store.telemetry;

import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import org.openpasture.core.judging.Event;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.series.PointSeries;
import org.openpasture.core.series.SeriesSlice;

/** The readings in memory. One thread adds, any may read; each series is its own lock, held for a copy at most. */
final class SeriesHead {
  private static final SeriesSlice EMPTY = new SeriesSlice(new long[0], new double[0], new byte[0]);
  private final Map<Integer, PointSeries> series = new ConcurrentHashMap<>();
  private final AtomicLong size = new AtomicLong();

  void take(Event event) {
    if (event instanceof Event.ReadingsArrived arrived) {
      for (PointReading entry : arrived.arrival().readings()) {
        PointSeries of = series.computeIfAbsent(entry.point(), point -> new PointSeries());
        synchronized (of) {
          int before = of.size();
          of.add(entry.reading());
          size.addAndGet(of.size() - before);
        }
      }
    }
  }

  Optional<Reading> last(int point) {
    PointSeries of = series.get(point);
    if (of == null) {
      return Optional.empty();
    }
    synchronized (of) {
      return of.last();
    }
  }

  SeriesSlice range(int point, Instant from, Instant until) {
    PointSeries of = series.get(point);
    if (of == null) {
      return EMPTY;
    }
    synchronized (of) {
      return of.slice(from, until);
    }
  }

  long size() {
    return size.get();
  }
}
