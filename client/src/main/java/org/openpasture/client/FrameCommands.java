package org.openpasture.client;

import java.io.PrintWriter;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.openpasture.client.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;

/** Raw frames. */
@Command(
        name = "frames",
        mixinStandardHelpOptions = true,
        description = "Raw frames and what became of them, the newest last.")
final class FrameCommands implements Runnable {
    @Mixin
    private Service service;

    @Option(names = "--device", paramLabel = "DEVICE", description = "Only of this device.")
    private @Nullable String device;

    @Option(names = "--inlet", paramLabel = "INLET", description = "Only what came by this inlet.")
    private @Nullable String inlet;

    @Option(names = "--refused", description = "Only those that were refused.")
    private boolean refused;

    @Option(names = "--limit", paramLabel = "N", defaultValue = "20", description = "How many (${DEFAULT-VALUE}).")
    private int limit;

    @Override
    public void run() {
        String id = device == null
                ? null
                : Service.pick(service.api().get("api/v1/devices"), device, "device")
                        .path("id")
                        .asString();
        JsonNode frames = service.api()
                .get("api/v1/frames?limit=" + limit + "&refused=" + refused + (id == null ? "" : "&device=" + id)
                        + (inlet == null ? "" : "&inlet=" + InletCommands.id(service, inlet)));
        if (service.printedJson(frames)) {
            return;
        }
        if (frames.isEmpty()) {
            service.out().println("No frames yet.");
        }
        frames.valueStream().toList().reversed().forEach(frame -> print(service.out(), frame));
    }

    @Command(name = "tail", mixinStandardHelpOptions = true, description = "Print frames as they come.")
    int tail(
            @Mixin Service from,
            @Option(names = "--count", paramLabel = "N", description = "Stop after so many.") @Nullable Integer count) {
        int[] left = {count == null ? Integer.MAX_VALUE : count};
        from.api().follow("api/v1/stream?events=frame", (name, data) -> {
            if (name.equals("frame")) {
                left[0]--;
                if (from.json) {
                    from.out().println(data);
                } else {
                    print(from.out(), data);
                }
            }
            return left[0] > 0;
        });
        return 0;
    }

    private static void print(PrintWriter out, JsonNode frame) {
        JsonNode best = frame.path("heard").path(0);
        String heard = best.isObject()
                ? String.format(
                        Locale.ROOT,
                        "%s %.0f dBm %.1f dB %s%s",
                        best.path("gatewayName")
                                .asString(best.path("gatewayEui").asString("")),
                        best.path("rssiDbm").asDouble(),
                        best.path("snrDb").asDouble(),
                        best.path("dataRate").asString(""),
                        frame.path("heard").size() > 1
                                ? " (+" + (frame.path("heard").size() - 1) + ")"
                                : "")
                : frame.path("inletName").asString("");
        out.println(Words.clock(frame.path("time")) + "  "
                + (frame.path("accepted").asBoolean() ? "ok      " : "refused ")
                + frame.path("deviceName").asString(frame.path("address").asString("?")) + "  "
                + frame.path("kind").asString()
                + (frame.path("counter").asLong(-1) >= 0
                        ? " " + frame.path("counter").asString()
                        : "") + "  " + heard);
        String payload = frame.path("text").asString(frame.path("payload").asString(""));
        if (!payload.isEmpty()) {
            out.println("          " + payload + "  " + frame.path("values").asString(""));
        }
        if (frame.path("reason").isString()) {
            out.println("          " + frame.path("reason").asString());
        }
    }
}
