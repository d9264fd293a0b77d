package org.openpasture.service.reading;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.openpasture.api.reading.ImportReport;
import org.openpasture.core.judging.Event;
import org.openpasture.core.access.Access;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.telemetry.Deposit;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Brings history in from CSV. */
@RestController
class ImportController {
  private static final Instant EARLIEST = Instant.parse("2000-01-01T00:00:00Z");
  private static final Duration AHEAD = Duration.ofDays(1);
  private static final int PIECE = 5_000;
  private static final int PROBLEMS_SHOWN = 50;

  private final TelemetryStore telemetry;
  private final Reader reader;
  private final Clock clock;

  ImportController(TelemetryStore telemetry, Reader reader, Clock clock) {
    this.telemetry = telemetry;
    this.reader = reader;
    this.clock = clock;
  }

  /**
   * Reads lines of {@code time,point,value[,quality]} with a header. Time is ISO 8601 with an offset, point its number or
   * id. Lines that cannot be taken are reported and the others kept; when this answers, they are on disk.
   *
   * @param dryRun only to see what would be taken
   */
  @PostMapping(path = "/api/v1/readings/import", consumes = "text/csv")
  ImportReport readCsv(HttpServletRequest request, @RequestParam(defaultValue = "false") boolean dryRun) throws IOException {
    Access access = reader.access();
    List<ImportReport.LineProblem> problems = new ArrayList<>();
    List<CompletableFuture<?>> commits = new ArrayList<>();
    List<PointReading> piece = new ArrayList<>();
    int accepted = 0;
    int refused = 0;
    CSVFormat format = CSVFormat.RFC4180.builder().setHeader().setSkipHeaderRecord(true).setIgnoreHeaderCase(true).setTrim(true)
        .setIgnoreEmptyLines(true).get();
    try (CSVParser parser = CSVParser.builder().setFormat(format)
        .setReader(new InputStreamReader(request.getInputStream(), StandardCharsets.UTF_8)).get()) {
      for (String column : List.of("time", "point", "value")) {
        if (parser.getHeaderNames().stream().noneMatch(column::equalsIgnoreCase)) {
          throw Problem.invalid("the first line must name the columns time, point and value; '" + column + "' is missing");
        }
      }
      for (CSVRecord line : parser) {
        try {
          piece.add(reading(access, line));
          accepted++;
        } catch (IllegalArgumentException e) {
          refused++;
          if (problems.size() < PROBLEMS_SHOWN) {
            problems.add(new ImportReport.LineProblem(parser.getCurrentLineNumber(), String.valueOf(e.getMessage())));
          }
        }
        if (piece.size() >= PIECE) {
          deposit(piece, dryRun, commits);
        }
      }
    } catch (java.io.UncheckedIOException e) {
      throw Problem.invalid("the text is no CSV from here on: " + e.getMessage());
    }
    deposit(piece, dryRun, commits);
    commits.forEach(CompletableFuture::join);
    return new ImportReport(accepted, refused, problems, dryRun);
  }

  private void deposit(List<PointReading> piece, boolean dryRun, List<CompletableFuture<?>> commits) {
    if (!piece.isEmpty() && !dryRun) {
      commits.add(telemetry.submit(Deposit.of(new Event.ReadingsArrived(
          new Arrival(clock.instant(), Arrival.Origin.IMPORT, piece)))));
    }
    piece.clear();
  }

  private PointReading reading(Access access, CSVRecord line) {
    if (!line.isConsistent()) {
      throw new IllegalArgumentException("the line has " + line.size() + " fields, the header names "
          + line.getParser().getHeaderNames().size());
    }
    String name = line.get("point");
    Point point = access.registry().find(Point.class, name)
        .or(() -> name.matches("\\d{1,9}") ? access.registry().point(Integer.parseInt(name)) : java.util.Optional.empty())
        .filter(access::maySee)
        .orElseThrow(() -> new IllegalArgumentException("no point has the number or id '" + name + "'"));
    if (!access.may(Right.EDIT, point.placeId())) {
      throw new IllegalArgumentException("you may not bring in readings of '" + point.name() + "'");
    }
    Instant time = time(line.get("time"));
    double value = value(line.get("value"));
    boolean physical = point.quantity().isPhysical(value);
    Quality quality = !physical ? Quality.BAD
        : line.isMapped("quality") && !line.get("quality").isBlank() ? quality(line.get("quality")) : Quality.GOOD;
    return new PointReading(point.number(), new Reading(time, value, quality));
  }

  private Instant time(String text) {
    Instant time;
    try {
      time = OffsetDateTime.parse(text).toInstant();
    } catch (DateTimeException e) {
      throw new IllegalArgumentException("'" + text + "' is no time like 2026-03-01T08:15:00+01:00", e);
    }
    if (time.isBefore(EARLIEST) || time.isAfter(clock.instant().plus(AHEAD))) {
      throw new IllegalArgumentException("the time " + text + " lies before 2000 or in the future");
    }
    return time;
  }

  private static double value(String text) {
    double value;
    try {
      value = Double.parseDouble(text);
    } catch (NumberFormatException e) {
      throw new IllegalArgumentException("'" + text + "' is no number", e);
    }
    if (!Double.isFinite(value)) {
      throw new IllegalArgumentException("'" + text + "' is no finite number");
    }
    return value;
  }

  private static Quality quality(String text) {
    for (Quality quality : Quality.values()) {
      if (quality.name().equalsIgnoreCase(text)) {
        return quality;
      }
    }
    throw new IllegalArgumentException("'" + text + "' is no quality; there are good, uncertain, bad");
  }
}
