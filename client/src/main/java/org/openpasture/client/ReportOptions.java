package org.openpasture.client;

import java.io.IOException;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;
import org.openpasture.client.http.ApiClient;
import picocli.CommandLine.Option;

/** Over which period a report is made, and where it is written. */
final class ReportOptions {
    @Option(
            names = "--last",
            paramLabel = "PERIOD",
            description = "day, week, month or year: the last one that is over, by the site's calendar.")
    private @Nullable String last;

    @Option(
            names = "--from",
            paramLabel = "WHEN",
            description = "Instead: 2026-03-01, yesterday, or how far back: 24h, 30d. Seven days back if left out.")
    private @Nullable String from;

    @Option(names = "--until", paramLabel = "WHEN", description = "The end; now if left out.")
    private @Nullable String until;

    @Option(
            names = {"-o", "--output"},
            paramLabel = "FILE",
            description = "The file; named after what it is about if left out.")
    private @Nullable Path file;

    /** Has a report made and writes it to its file. */
    int write(Service service, String path, String name) throws IOException {
        service.download(
                path + "/report?" + ApiClient.query("last", last) + Times.query("from", from)
                        + Times.query("until", until),
                file == null ? Path.of("report " + name.replaceAll("[/\\\\:*?\"<>|\\p{Cntrl}]", "-") + ".pdf") : file);
        return 0;
    }
}
