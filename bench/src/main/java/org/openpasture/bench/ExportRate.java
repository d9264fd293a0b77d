package org.openpasture.bench;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import org.openpasture.api.place.PlaceView;
import org.openpasture.api.place.PointRequest;
import org.openpasture.api.place.PointView;
import org.openpasture.api.place.SiteRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.simulator.host.ServiceProcess;

/** Readings out of the service and into it, as the client does it. */
final class ExportRate {
    private static final int ROWS = 2_000_000;

    private ExportRate() {}

    static void measure(Path app) throws IOException {
        try (ServiceProcess service = InstalledService.start(app, true)) {
            ApiClient owner = service.owner();
            String site = owner.post(
                            "api/v1/sites",
                            new SiteRequest("Works", java.time.ZoneId.of("Europe/Paris"), null, null),
                            PlaceView.class)
                    .id();
            int point = owner.post(
                            "api/v1/points",
                            new PointRequest(
                                    "Temperature",
                                    site,
                                    Quantity.TEMPERATURE,
                                    null,
                                    null,
                                    null,
                                    null,
                                    true,
                                    null,
                                    null),
                            PointView.class)
                    .number();
            StringBuilder csv = new StringBuilder("time,point,value\n");
            Instant start = Instant.parse("2025-03-01T00:00:00Z");
            for (int i = 0; i < ROWS; i++) {
                csv.append(start.plusSeconds(i * 10L))
                        .append(',')
                        .append(point)
                        .append(',')
                        .append(i % 1_000 / 10.0)
                        .append('\n');
            }
            byte[] bytes = csv.toString().getBytes(StandardCharsets.UTF_8);
            long begun = System.nanoTime();
            owner.postCsv("api/v1/readings/import?dryRun=false", new ByteArrayInputStream(bytes));
            Bench.row(
                    "import: rows/s of CSV over HTTP until they are on disk",
                    String.format(Locale.ROOT, "%,.0f", ROWS / ((System.nanoTime() - begun) / 1e9)));
            for (String format : List.of("csv", "json-lines", "senml", "xlsx")) {
                long until = format.equals("xlsx") ? 200_000 : ROWS;
                String path = "api/v1/readings/export?points=" + point + "&format=" + format + "&until="
                        + start.plusSeconds(until * 10);
                owner.download(path, OutputStream.nullOutputStream());
                begun = System.nanoTime();
                owner.download(path, OutputStream.nullOutputStream());
                Bench.row(
                        "export: rows/s over HTTP, " + format,
                        String.format(Locale.ROOT, "%,.0f", until / ((System.nanoTime() - begun) / 1e9)));
            }
        }
    }
}
