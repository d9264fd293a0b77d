package org.openpasture.service.reading;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.reading.SeriesView;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.series.SeriesSlice;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Readings of points: reduced for drawing, or all of them as CSV. */
@RestController
class ReadingController {
  private final TelemetryStore telemetry;
  private final Reader reader;
  private final SeriesViews views;
  private final Clock clock;

  ReadingController(TelemetryStore telemetry, Reader reader, SeriesViews views, Clock clock) {
    this.telemetry = telemetry;
    this.reader = reader;
    this.views = views;
    this.clock = clock;
  }

  /**
   * Readings of a range.
   *
   * @param from null for a day before {@code until}
   * @param until null for now
   * @param buckets the range is reduced to about twice as many readings, lowest and highest of each bucket kept
   */
  @GetMapping("/api/v1/points/{id}/readings")
  SeriesView readings(@PathVariable String id, @RequestParam(required = false) @Nullable Instant from,
      @RequestParam(required = false) @Nullable Instant until, @RequestParam(defaultValue = "600") int buckets) {
    return views.series(reader.point(id), from, until, buckets);
  }

  /** All readings of a range as CSV (RFC 4180), unit and time zone in the header. */
  @GetMapping("/api/v1/points/{id}/readings.csv")
  void csv(@PathVariable String id, @RequestParam(required = false) @Nullable Instant from,
      @RequestParam(required = false) @Nullable Instant until, HttpServletResponse response) throws IOException {
    Point point = reader.point(id);
    Instant end = until == null ? clock.instant().plusSeconds(1) : until;
    Instant begin = from == null ? Instant.EPOCH : from;
    if (!begin.isBefore(end)) {
      throw Problem.invalid("the range ends before it begins");
    }
    ZoneId zone = reader.now().siteOf(point.placeId()).map(Site::zone).orElse(ZoneOffset.UTC);
    response.setContentType("text/csv;charset=UTF-8");
    response.setHeader("Content-Disposition", "attachment; filename=\"point-" + point.number() + ".csv\"");
    DateTimeFormatter time = DateTimeFormatter.ISO_OFFSET_DATE_TIME.withZone(zone).withLocale(Locale.ROOT);
    SeriesSlice slice = telemetry.range(point.number(), begin, end);
    try (Writer writer = new java.io.OutputStreamWriter(response.getOutputStream(), StandardCharsets.UTF_8);
        CSVPrinter printer = new CSVPrinter(writer, CSVFormat.RFC4180)) {
      printer.printRecord(List.of("time (" + zone.getId() + ")", "point", point.name() + " (" + point.unit() + ")", "quality"));
      for (int i = 0; i < slice.size(); i++) {
        printer.printRecord(time.format(Instant.ofEpochMilli(slice.times()[i])), point.number(), slice.values()[i],
            Quality.ofCode(slice.qualities()[i]).name().toLowerCase(Locale.ROOT));
      }
    }
  }
}
