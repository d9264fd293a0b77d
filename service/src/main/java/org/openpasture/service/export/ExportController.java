package org.openpasture.service.export;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.reading.TimeRange;
import org.openpasture.core.people.DisplayUnits;
import org.openpasture.engine.export.ExportFormat;
import org.openpasture.engine.export.ExportedPoint;
import org.openpasture.engine.export.ReadingWriter;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Readings as files. They are written as they are read, so that years of them need no more memory than an hour. */
@RestController
class ExportController {
    private static final int MOST_POINTS = 500;
    private final TelemetryStore telemetry;
    private final Reader reader;
    private final Clock clock;

    ExportController(TelemetryStore telemetry, Reader reader, Clock clock) {
        this.telemetry = telemetry;
        this.reader = reader;
        this.clock = clock;
    }

    /**
     * All readings of some points in a range. The header {@code Pasture-Readings} says about how many there are, for
     * whoever shows progress.
     *
     * @param points numbers or ids
     * @param from null for the first
     * @param until null for now
     * @param format csv, xlsx, json-lines or senml
     * @param units kept for the unit of each point, or mine for those in which the reader reads values
     */
    @GetMapping("/api/v1/readings/export")
    void export(
            @RequestParam List<String> points,
            @RequestParam(required = false) @Nullable Instant from,
            @RequestParam(required = false) @Nullable Instant until,
            @RequestParam(defaultValue = "csv") String format,
            @RequestParam(defaultValue = "kept") String units,
            HttpServletResponse response)
            throws IOException {
        ExportFormat as = ExportFormat.of(format);
        if (points.isEmpty() || points.size() > MOST_POINTS) {
            throw Problem.invalid("choose between one point and " + MOST_POINTS);
        }
        DisplayUnits shown = reader.units(units);
        List<ExportedPoint> chosen = points.stream()
                .map(id -> ExportedPoint.of(reader.now(), reader.point(id), shown))
                .toList();
        TimeRange range = TimeRange.of(from == null ? Instant.EPOCH : from, until, clock.instant(), Duration.ZERO);
        long about = chosen.stream()
                .mapToLong(of -> telemetry.series().estimate(of.point().number(), range.from(), range.until()))
                .sum();
        response.setContentType(as.mediaType());
        response.setHeader("Pasture-Readings", Long.toString(about));
        response.setHeader(
                "Content-Disposition",
                "attachment; filename=\""
                        + (chosen.size() == 1
                                ? "point-" + chosen.getFirst().point().number()
                                : "readings") + "." + as.suffix() + "\"");
        try (ReadingWriter writer = as.begin(response.getOutputStream(), chosen)) {
            for (ExportedPoint of : chosen) {
                ReadingWriter.all(telemetry.series(), writer, of, range.from(), range.until());
            }
        }
    }
}
