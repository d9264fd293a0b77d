package org.openpasture.inlets.fetch;

import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ExecutionException;
import java.util.zip.GZIPInputStream;
import org.openpasture.core.framing.Framing;
import org.openpasture.core.inlet.Source;
import org.openpasture.inlets.loop.Deadline;
import org.openpasture.inlets.loop.Loop;
import org.openpasture.inlets.message.Backoff;
import org.openpasture.inlets.message.Condition;
import org.openpasture.inlets.message.MessageInlet;
import org.openpasture.inlets.message.MessageSink;
import org.openpasture.inlets.reach.Reach;

/**
 * Fetches an address again and again; each answer is a message. Redirects are followed by hand, a few of them, and each
 * place on the way is held against the rule that private addresses are fetched only if the inlet says so.
 */
public final class HttpFetcher implements MessageInlet {
    private static final Duration CONNECT_WITHIN = Duration.ofSeconds(5);
    private static final Duration ANSWER_WITHIN = Duration.ofSeconds(20);
    private static final int MOST_REDIRECTS = 4;
    private static final int LONGEST = 4 << 20;
    private final HttpClient client = HttpClient.newBuilder()
            .connectTimeout(CONNECT_WITHIN)
            .followRedirects(HttpClient.Redirect.NEVER)
            .build();
    private final Source.HttpFetch source;
    private final Map<String, String> headers;
    private final Reach reach;
    private final Framing framing;
    private final MessageSink sink;
    private final Backoff backoff = new Backoff();
    private final Loop loop;
    private String tag = "";

    /**
     * Begins to fetch.
     *
     * @param headers sent along, secrets among them
     * @param reach where it may lead, and where it may be sent on to
     */
    public HttpFetcher(
            Source.HttpFetch source, Map<String, String> headers, Reach reach, Framing framing, MessageSink sink) {
        this.reach = reach;
        this.source = source;
        this.headers = Map.copyOf(headers);
        this.framing = framing;
        this.sink = sink;
        sink.condition(Condition.CONNECTING, "It is fetched for the first time.");
        this.loop = Loop.onVirtualThread("fetch-" + source.url().getHost(), this::round, problem -> {
                    if (!problem.isEmpty()) {
                        sink.condition(Condition.DOWN, "Fetching failed: " + problem + ". It is tried again.");
                    }
                })
                .start();
    }

    @Override
    public String address() {
        return source.address();
    }

    private void round() throws InterruptedException {
        Duration wait = Duration.ofSeconds(source.everySeconds());
        try {
            fetch();
            backoff.reset();
        } catch (IOException e) {
            sink.condition(Condition.DOWN, e.getMessage() + ". It is tried again.");
            Duration growing = backoff.next();
            wait = growing.compareTo(wait) > 0 ? growing : wait;
        }
        Thread.sleep(wait);
    }

    /**
     * Fetches once; what comes is handed over.
     *
     * @throws IOException in words, if nothing useful came
     */
    private void fetch() throws IOException, InterruptedException {
        HttpResponse<InputStream> response = get();
        try (InputStream body = response.body()) {
            if (response.statusCode() == 304) {
                sink.condition(Condition.UP, "It says that nothing is new since it was fetched last.");
                return;
            }
            if (response.statusCode() != 200) {
                throw new IOException(source.url().getHost() + " answers " + response.statusCode()
                        + (response.statusCode() == 401 || response.statusCode() == 403
                                ? ": its header or token is wrong"
                                : response.statusCode() == 404 ? ": there is nothing at this address" : ""));
            }
            boolean packed = response.headers()
                    .firstValue("Content-Encoding")
                    .filter("gzip"::equalsIgnoreCase)
                    .isPresent();
            byte[] message = readWithin(body, packed);
            if (message.length > LONGEST) {
                throw new IOException(source.url().getHost() + " answers with more than " + LONGEST + " bytes");
            }
            tag = response.headers().firstValue("ETag").orElse("");
            hand(message);
            sink.condition(Condition.UP, "It answers.");
        }
    }

    /**
     * Reads an answer to its end; one that trickles is cut off, so that it does not hold up the next round for ever.
     */
    private byte[] readWithin(InputStream body, boolean packed) throws IOException, InterruptedException {
        try {
            return Deadline.within(
                    ANSWER_WITHIN,
                    "fetch-body",
                    source.url().getHost() + " did not finish its answer within " + ANSWER_WITHIN.toSeconds() + " s",
                    () -> (packed ? new GZIPInputStream(body) : body).readNBytes(LONGEST + 1));
        } finally {
            body.close();
        }
    }

    private void hand(byte[] message) throws IOException, InterruptedException {
        try {
            sink.message(framing, message, source.url().getHost(), Map.of()).get();
        } catch (ExecutionException e) {
            // It could not be written; it is fetched again, whatever its tag.
            tag = "";
            throw new IOException("what it answered could not be kept: " + e.getMessage(), e);
        }
    }

    private HttpResponse<InputStream> get() throws IOException, InterruptedException {
        URI at = withTime(source.url(), sink.wantedSince());
        for (int i = 0; i <= MOST_REDIRECTS; i++) {
            reach.check(at.getHost());
            HttpRequest.Builder request =
                    HttpRequest.newBuilder(at).timeout(ANSWER_WITHIN).header("Accept-Encoding", "gzip");
            if (isSamePlace(at)) {
                // Secrets are for the place that was entered, not for wherever it sends us.
                headers.forEach(request::header);
            }
            if (!tag.isEmpty()) {
                request.header("If-None-Match", tag);
            }
            HttpResponse<InputStream> response;
            try {
                response = client.send(request.build(), HttpResponse.BodyHandlers.ofInputStream());
            } catch (IOException e) {
                throw new IOException(
                        at.getHost() + (at.getPort() > 0 ? ":" + at.getPort() : "") + " cannot be reached: "
                                + Optional.ofNullable(e.getMessage()).orElse("it refuses the connection"),
                        e);
            }
            Optional<String> elsewhere = response.headers().firstValue("Location");
            if (response.statusCode() < 301
                    || response.statusCode() > 308
                    || response.statusCode() == 304
                    || elsewhere.isEmpty()) {
                return response;
            }
            response.body().close();
            at = at.resolve(elsewhere.get());
            if (!"http".equals(at.getScheme()) && !"https".equals(at.getScheme()) || at.getHost() == null) {
                throw new IOException(
                        source.url().getHost() + " sends us on to '" + at + "', which is no address to fetch");
            }
        }
        throw new IOException(source.url().getHost() + " sends us on again and again");
    }

    /** Scheme, host and port are the same, or the host is and it is encrypted now. */
    private boolean isSamePlace(URI at) {
        URI entered = source.url();
        return at.getHost().equalsIgnoreCase(entered.getHost())
                && (at.getScheme().equals(entered.getScheme()) && port(at) == port(entered)
                        || at.getScheme().equals("https") && port(at) == 443 && port(entered) == 80);
    }

    private static int port(URI at) {
        return at.getPort() > 0 ? at.getPort() : at.getScheme().equals("https") ? 443 : 80;
    }

    private static URI withTime(URI url, Instant since) {
        String text = url.toString();
        return !text.contains("$since")
                ? url
                : URI.create(text.replace("$sinceSeconds", Long.toString(since.getEpochSecond()))
                        .replace("$sinceMillis", Long.toString(since.toEpochMilli()))
                        .replace("$since", since.toString()));
    }

    @Override
    public void close() {
        loop.close();
        client.shutdownNow();
    }
}
