package org.openpasture.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.PrintStream;
import java.io.UncheckedIOException;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Others' implementation of a protocol, as a process that is told lines and says lines of JSON. */
public class Peer implements AutoCloseable {
    private final Process process;
    private final PrintStream to;
    private final BlockingQueue<JsonNode> said = new LinkedBlockingQueue<>();

    /** Starts one of {@code src/test/peers}. */
    public Peer(String script, String... arguments) throws IOException {
        process = new ProcessBuilder(Stream.concat(Stream.of("node", "src/test/peers/" + script), Stream.of(arguments))
                        .toList())
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .start();
        to = new PrintStream(process.getOutputStream(), true);
        Thread.ofVirtual().start(() -> {
            try (BufferedReader lines = process.inputReader()) {
                lines.lines().forEach(line -> said.add(JsonMapper.shared().readTree(line)));
            } catch (IOException | UncheckedIOException e) {
                // It has ended.
            }
        });
    }

    /** The next line in which something is said; what is said before it is passed over. */
    public JsonNode next(String what) {
        try {
            while (true) {
                JsonNode one = said.poll(20, TimeUnit.SECONDS);
                assertThat(one).as("waiting for " + what).isNotNull();
                assertThat(one.has("error")).as("the peer says %s", one).isFalse();
                if (one.has(what)) {
                    return one;
                }
            }
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    public void tell(String line) {
        to.println(line);
    }

    @Override
    public void close() {
        process.destroy();
    }
}
