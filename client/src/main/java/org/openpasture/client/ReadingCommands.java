package org.openpasture.client;

import java.io.FileInputStream;
import java.io.FileOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.openpasture.client.http.ApiClient;
import org.openpasture.client.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** Readings: followed live, written to a file, brought in from one. */
@Command(name = "readings", mixinStandardHelpOptions = true, description = "Follow, export and import readings.",
    synopsisSubcommandLabel = "COMMAND")
final class ReadingCommands {

  @Command(name = "tail", mixinStandardHelpOptions = true, description = "Print readings as they come.")
  int tail(@Mixin Service from, @Option(names = "--count", paramLabel = "N", description = "Stop after so many.") @Nullable Integer count,
      @Option(names = "--point", paramLabel = "POINT", description = "Only of this point.") @Nullable String point) {
    Map<String, JsonNode> points = new HashMap<>();
    from.api().get("api/v1/points").forEach(one -> points.put(one.path("id").asString(), one));
    String only = point == null ? null : PointCommands.id(from, point);
    int[] left = {count == null ? Integer.MAX_VALUE : count};
    from.api().follow("api/v1/stream?events=reading", (name, data) -> {
      if (name.equals("reading") && (only == null || only.equals(data.path("pointId").asString()))) {
        left[0]--;
        if (from.json) {
          from.out().println(data);
        } else {
          JsonNode one = points.getOrDefault(data.path("pointId").asString(), data);
          JsonNode latest = data.path("latest");
          JsonNode path = one.path("path");
          from.out().println(Words.clock(latest.path("time")) + "  " + (path.isEmpty() ? "" : path.get(path.size() - 1).asString() + ", ")
              + one.path("name").asString() + ": " + Words.number(latest.path("value"), one.path("decimals").asInt(2)) + " "
              + one.path("unit").asString("") + (latest.path("zone").isString() ? ", zone " + latest.path("zone").asString() : ""));
        }
      }
      return left[0] > 0;
    });
    return 0;
  }

  @Command(name = "export", mixinStandardHelpOptions = true, description = "Write a point's readings as CSV (or JSON with --json).")
  int export(@Mixin Service from, @Parameters(paramLabel = "POINT", description = "Number, id or name.") String point,
      @Option(names = "--from", paramLabel = "WHEN", description = "2026-03-01T08:00:00Z, or how far back: 24h, 7d.") @Nullable String begin,
      @Option(names = "--until", paramLabel = "WHEN") @Nullable String until,
      @Option(names = {"-o", "--output"}, paramLabel = "FILE", description = "Else to the screen.") @Nullable Path file) throws IOException {
    String range = (begin == null ? "" : "&from=" + ApiClient.escape(when(begin).toString()))
        + (until == null ? "" : "&until=" + ApiClient.escape(when(until).toString()));
    String id = ApiClient.escape(PointCommands.id(from, point));
    if (from.json) {
      from.print(from.api().get("api/v1/points/" + id + "/readings?buckets=5000" + range));
      return 0;
    }
    String path = "api/v1/points/" + id + "/readings.csv?" + range;
    if (file == null) {
      from.api().download(path, System.out);
      System.out.flush();
    } else {
      try (OutputStream to = new FileOutputStream(file.toFile())) {
        from.api().download(path, to);
      }
      from.err().println("Written to " + file + ".");
    }
    return 0;
  }

  static Instant when(String text) {
    if (text.matches("\\d+[smhd]")) {
      long amount = Long.parseLong(text.substring(0, text.length() - 1));
      return Instant.now().minus(switch (text.charAt(text.length() - 1)) {
        case 's' -> Duration.ofSeconds(amount);
        case 'm' -> Duration.ofMinutes(amount);
        case 'h' -> Duration.ofHours(amount);
        default -> Duration.ofDays(amount);
      });
    }
    try {
      return java.time.OffsetDateTime.parse(text).toInstant();
    } catch (DateTimeParseException e) {
      throw new IllegalArgumentException("'" + text + "' is no time like 2026-03-01T08:00:00Z and no span like 24h or 7d", e);
    }
  }

  @Command(name = "import", mixinStandardHelpOptions = true, description = "Bring in CSV with the columns time, point, value.")
  int importCsv(@Mixin Service to, @Parameters(paramLabel = "FILE", description = "- for standard input.") String file,
      @Option(names = "--dry-run", description = "Only say what would be taken.") boolean dryRun) throws IOException {
    JsonNode report;
    try (InputStream in = file.equals("-") ? System.in : new FileInputStream(file)) {
      report = to.api().postCsv("api/v1/readings/import?dryRun=" + dryRun, in);
    }
    if (!to.printedJson(report)) {
      to.out().println((dryRun ? "Would take " : "Took ") + report.path("accepted").asInt() + " readings, refused "
          + report.path("refused").asInt() + " lines.");
      report.path("problems").forEach(problem ->
          to.out().println("  line " + problem.path("line").asInt() + ": " + problem.path("reason").asString()));
    }
    return report.path("refused").asInt() > 0 ? Pasture.REFUSED : 0;
  }
}
