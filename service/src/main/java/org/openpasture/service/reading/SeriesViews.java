package org.openpasture.service.reading;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.reading.SeriesView;
import org.openpasture.core.place.Point;
import org.openpasture.core.series.SeriesSlice;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.stereotype.Component;

/** Ranges of readings for drawing. */
@Component
public class SeriesViews {
  private static final Duration DEFAULT_RANGE = Duration.ofDays(1);
  private static final int MOST_BUCKETS = 5_000;
  private final TelemetryStore telemetry;
  private final Clock clock;

  SeriesViews(TelemetryStore telemetry, Clock clock) {
    this.telemetry = telemetry;
    this.clock = clock;
  }

  /** Readings of a range, reduced. */
  public SeriesView series(Point point, @Nullable Instant from, @Nullable Instant until, int buckets) {
    Instant end = until == null ? clock.instant().plusSeconds(1) : until;
    Instant begin = from == null ? end.minus(DEFAULT_RANGE) : from;
    if (!begin.isBefore(end)) {
      throw Problem.invalid("the range ends before it begins");
    }
    SeriesSlice slice = telemetry.range(point.number(), begin, end);
    SeriesSlice drawn = slice.reduce(Math.clamp(buckets, 1, MOST_BUCKETS));
    return new SeriesView(point.id(), point.unit(), drawn.times(), drawn.values(), drawn.qualities(), slice.size());
  }
}
