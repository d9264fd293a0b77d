package org.openpasture.service.importing;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.time.Clock;
import java.time.DateTimeException;
import java.time.ZoneId;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.reading.ImportReport;
import org.openpasture.engine.importing.CsvImport;
import org.openpasture.engine.importing.ReadingTaker;
import org.openpasture.engine.importing.SenmlImport;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Brings history in from files. */
@RestController
class ImportController {
    private final TelemetryStore telemetry;
    private final Reader reader;
    private final Clock clock;

    ImportController(TelemetryStore telemetry, Reader reader, Clock clock) {
        this.telemetry = telemetry;
        this.reader = reader;
        this.clock = clock;
    }

    /**
     * Reads CSV with a header, separated by commas or semicolons (then with decimal commas). Lines that cannot be taken
     * are reported and the others kept; when this answers, they are on disk.
     *
     * @param dryRun only to see what would be taken
     * @param time name of the column with the times; without it "time" or "time (ZONE)"
     * @param point name of the column with a point's number or id; without it "point"
     * @param value name of the column with the values; without it "value", or the only one that ends with a unit: "Fill
     *     (%)"
     * @param quality name of the column with good, uncertain or bad; without it "quality", if there is one
     * @param onlyPoint the point of all lines, for files without such a column
     * @param zone in which times without an offset are meant; without it that of the time column's header
     */
    @PostMapping(path = "/api/v1/readings/import", consumes = "text/csv")
    ImportReport readCsv(
            HttpServletRequest request,
            @RequestParam(defaultValue = "false") boolean dryRun,
            @RequestParam(required = false) @Nullable String time,
            @RequestParam(required = false) @Nullable String point,
            @RequestParam(required = false) @Nullable String value,
            @RequestParam(required = false) @Nullable String quality,
            @RequestParam(required = false) @Nullable String onlyPoint,
            @RequestParam(required = false) @Nullable String zone)
            throws IOException {
        ReadingTaker taker = new ReadingTaker(telemetry, reader.access(), clock, dryRun);
        new CsvImport(new CsvImport.Columns(time, point, value, quality, onlyPoint, zone == null ? null : zone(zone)))
                .read(request.getInputStream(), taker);
        return taker.report();
    }

    /**
     * Reads a SenML pack (RFC 8428). Names are {@code point-NUMBER}, a point's number or id, or named in {@code map}.
     *
     * @param map NAME=POINT, for any number of names
     */
    @PostMapping(path = "/api/v1/readings/import", consumes = "application/senml+json")
    ImportReport readSenml(
            HttpServletRequest request,
            @RequestParam(defaultValue = "false") boolean dryRun,
            @RequestParam(required = false) @Nullable List<String> map)
            throws IOException {
        Map<String, String> names = new HashMap<>();
        for (String pair : map == null ? List.<String>of() : map) {
            int at = pair.lastIndexOf('=');
            if (at < 1) {
                throw Problem.invalid("'" + pair + "' is no NAME=POINT");
            }
            names.put(pair.substring(0, at), pair.substring(at + 1));
        }
        ReadingTaker taker = new ReadingTaker(telemetry, reader.access(), clock, dryRun);
        new SenmlImport(names, clock).read(request.getInputStream(), taker);
        return taker.report();
    }

    private static ZoneId zone(String id) {
        try {
            return ZoneId.of(id);
        } catch (DateTimeException e) {
            throw Problem.invalid("there is no time zone '" + id + "'; write it like Europe/Paris");
        }
    }
}
