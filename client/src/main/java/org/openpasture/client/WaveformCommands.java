package org.openpasture.client;

import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.openpasture.client.http.ApiClient;
import org.openpasture.client.output.TextTable;
import org.openpasture.client.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** Waveforms of vibration points and their spectra. */
@Command(
        name = "waveforms",
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "COMMAND",
        description = "Vibration waveforms of points and their spectra.")
final class WaveformCommands {
    private static final int LINES = 8;
    private static final List<List<String>> FIGURES = List.of(
            List.of("velocity-rms", "Velocity, RMS", "mm/s"),
            List.of("acceleration-rms", "Acceleration, RMS", "m/s²"),
            List.of("displacement-rms", "Displacement, RMS", "µm"),
            List.of("peak", "Peak", ""),
            List.of("peak-to-peak", "Peak to peak", ""),
            List.of("crest-factor", "Crest factor", ""),
            List.of("kurtosis", "Kurtosis", ""));
    private static final Map<String, String> PATTERNS = Map.of(
            "unbalance", "nearly all vibration is at the running speed; usually unbalance",
            "misalignment", "twice the running speed is strong; usually misalignment",
            "looseness", "many multiples of the running speed; usually looseness",
            "outer-ring", "outer ring of the bearing; usually damage there",
            "inner-ring", "inner ring of the bearing; usually damage there",
            "rolling-element", "ball or roller of the bearing; usually damage there",
            "cage", "cage of the bearing; usually damage there");

    @Command(name = "list", mixinStandardHelpOptions = true, description = "Kept waveforms of a point, newest first.")
    int list(
            @Mixin Service to,
            @Parameters(paramLabel = "POINT", description = "Number, id or name.") String point,
            @Option(
                            names = "--limit",
                            paramLabel = "NUMBER",
                            defaultValue = "50",
                            description = "Number of waveforms (${DEFAULT-VALUE}).")
                    int limit) {
        JsonNode kept = to.api().get(path(to, point) + "/waveforms?limit=" + limit);
        if (to.printedJson(kept)) {
            return 0;
        }
        TextTable table = new TextTable("Measured", "Samples", "Per second", "Length", "Size");
        kept.forEach(one -> table.row(
                Words.moment(one.path("time")),
                one.path("samples").asString(),
                Words.number(one.path("samplesPerSecond"), 0),
                String.format(
                        Locale.ROOT,
                        "%.2f s",
                        one.path("samples").asDouble()
                                / one.path("samplesPerSecond").asDouble()),
                Words.bytes(one.path("bytes").asLong())));
        to.out().print(table.isEmpty() ? "No waveforms of this point in the last 90 days.\n" : table.text());
        return 0;
    }

    @Command(
            name = "show",
            mixinStandardHelpOptions = true,
            description = "Figures of a waveform, the strongest lines of its spectrum, and what they usually point to.")
    int show(
            @Mixin Service to,
            @Parameters(paramLabel = "POINT", description = "Number, id or name.") String point,
            @Option(
                            names = "--time",
                            paramLabel = "TIME",
                            description = "The waveform measured then or before; the newest by default.")
                    @Nullable
                    Instant at,
            @Option(
                            names = "--of",
                            paramLabel = "KIND",
                            defaultValue = "velocity",
                            description =
                                    "Spectrum of velocity, acceleration, displacement or envelope; ${DEFAULT-VALUE} by default.")
                    String kind,
            @Option(
                            names = "--until-hz",
                            paramLabel = "HZ",
                            defaultValue = "1000",
                            description = "Where the spectrum ends; ${DEFAULT-VALUE} Hz by default.")
                    double untilHz) {
        String path = path(to, point);
        String when = at == null ? "" : "&at=" + at;
        JsonNode spectrum =
                to.api().get(path + "/spectrum?kind=" + ApiClient.escape(kind) + "&untilHz=" + untilHz + when);
        if (to.printedJson(spectrum)) {
            return 0;
        }
        JsonNode waveform = to.api().get(path + "/waveform?most=2" + when);
        to.out()
                .println("Measured " + Words.moment(waveform.path("time")) + ", "
                        + waveform.path("samples").asString() + " samples at "
                        + Words.number(waveform.path("samplesPerSecond"), 0) + " per second; speed " + speed(spectrum));
        TextTable figures = new TextTable("Figure", "Value");
        for (List<String> figure : FIGURES) {
            JsonNode value = waveform.path("figures").path(figure.getFirst());
            String unit =
                    figure.getFirst().startsWith("peak") ? waveform.path("unit").asString() : figure.getLast();
            if (value.isNumber()) {
                figures.row(figure.get(1), (Words.number(value, 2) + " " + unit).strip());
            }
        }
        to.out().print(figures.text());
        TextTable lines = new TextTable("Line", "Order", "RMS");
        spectrum.path("lines")
                .valueStream()
                .limit(LINES)
                .forEach(line -> lines.row(
                        Words.number(line.path("hz"), 1) + " Hz",
                        line.path("order").isNumber() ? Words.number(line.path("order"), 2) : "",
                        Words.number(line.path("rms"), 3) + " "
                                + spectrum.path("unit").asString()));
        to.out().print(lines.isEmpty() ? "No line stands out of the noise.\n" : "\n" + lines.text());
        for (JsonNode finding : spectrum.path("findings")) {
            String bearing = finding.path("bearing").asString();
            to.out()
                    .println("Hint: " + (bearing.isEmpty() ? "" : bearing + ": ")
                            + PATTERNS.getOrDefault(
                                    finding.path("pattern").asString(),
                                    finding.path("pattern").asString())
                            + " (lines at "
                            + finding.path("lines")
                                    .valueStream()
                                    .map(line -> Words.number(line.path("hz"), 1))
                                    .collect(Collectors.joining(", "))
                            + " Hz).");
        }
        return 0;
    }

    private static String speed(JsonNode spectrum) {
        JsonNode speed = spectrum.path("speed");
        return speed.isObject()
                ? Words.number(speed.path("rpm"), 0) + " rpm"
                        + (speed.path("source").asString().equals("FOUND") ? " (found in the spectrum)" : "") + "."
                : "not known.";
    }

    private static String path(Service to, String point) {
        return "api/v1/points/" + ApiClient.escape(PointCommands.id(to, point));
    }
}
