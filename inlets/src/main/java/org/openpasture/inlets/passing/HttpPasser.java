package org.openpasture.inlets.passing;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import org.openpasture.core.outlet.Destination;
import org.openpasture.inlets.reach.Reach;

/**
 * Posts to an address. With a secret named "signing-key" each post is signed by that key: as HTTP Message Signatures
 * have it (RFC 9421), and, for those who cannot read that, with {@code Pasture-Time} (seconds since 1970) and
 * {@code Pasture-Signature}: HMAC-SHA-256 over the time, a full stop and the body, in hex digits. The other secrets are
 * headers. Redirects are not followed.
 */
public final class HttpPasser implements Passer {
    /** The name of the secret that is no header. */
    public static final String SIGNING_KEY = "signing-key";

    private static final Duration PATIENCE = Duration.ofSeconds(20);
    private static final int SHOWN = 200;
    /**
     * Bad request, content too large, unprocessable content (RFC 9110, 15.5): what is wrong is the message and not the
     * way to it.
     */
    private static final Set<Integer> OF_THE_MESSAGE = Set.of(400, 413, 422);

    private final HttpClient client = HttpClient.newBuilder()
            .connectTimeout(Duration.ofSeconds(10))
            .followRedirects(HttpClient.Redirect.NEVER)
            .build();
    private final Destination.HttpPost destination;
    private final Map<String, String> headers;
    private final Optional<String> signingKey;
    private final Reach reach;
    private final Clock clock;

    /** Connects when the first message is passed on. */
    public HttpPasser(Destination.HttpPost destination, Map<String, String> secrets, Reach reach, Clock clock) {
        this.reach = reach;
        this.destination = destination;
        Map<String, String> rest = new HashMap<>(secrets);
        this.signingKey = Optional.ofNullable(rest.remove(SIGNING_KEY));
        this.headers = Map.copyOf(rest);
        this.clock = clock;
    }

    @Override
    public String pass(Message message) throws IOException, InterruptedException {
        reach.check(destination.url().getHost());
        HttpRequest.Builder request = HttpRequest.newBuilder(destination.url())
                .timeout(PATIENCE)
                .header("Content-Type", message.mediaType())
                .POST(HttpRequest.BodyPublishers.ofByteArray(message.body()));
        headers.forEach(request::header);
        if (signingKey.isPresent()) {
            String time = Long.toString(clock.instant().getEpochSecond());
            request.header("Pasture-Time", time)
                    .header("Pasture-Signature", signature(signingKey.get(), time, message.body()));
            sign(request, message, signingKey.get());
        }
        HttpResponse<byte[]> answer;
        try {
            answer = client.send(request.build(), HttpResponse.BodyHandlers.ofByteArray());
        } catch (IOException e) {
            throw new IOException(
                    destination.url().getHost() + " cannot be reached: "
                            + Optional.ofNullable(e.getMessage()).orElse("it refuses the connection"),
                    e);
        }
        String said =
                new String(answer.body(), 0, Math.min(answer.body().length, SHOWN), StandardCharsets.UTF_8).strip();
        if (answer.statusCode() / 100 != 2) {
            String words = destination.url().getHost() + " answers " + answer.statusCode()
                    + (said.isEmpty() ? "" : ": " + said);
            throw OF_THE_MESSAGE.contains(answer.statusCode()) ? new Refused(words) : new IOException(words);
        }
        return "It answered " + answer.statusCode() + (said.isEmpty() ? "." : ": " + said);
    }

    /** Covers what is asked of whom, and the content. */
    private void sign(HttpRequest.Builder request, Message message, String key) {
        String digest = MessageSignature.digest(message.body());
        String path = destination.url().getRawPath();
        String query = destination.url().getRawQuery();
        SequencedMap<String, String> covered = new LinkedHashMap<>();
        covered.put("@method", "POST");
        covered.put("@authority", authority(destination.url()));
        covered.put("@path", path == null || path.isEmpty() ? "/" : path);
        covered.put("@query", query == null ? "?" : "?" + query);
        covered.put("content-type", message.mediaType());
        covered.put("content-digest", digest);
        MessageSignature signed =
                MessageSignature.of(covered, clock.instant(), "pasture", key.getBytes(StandardCharsets.UTF_8));
        request.header("Content-Digest", digest)
                .header("Signature-Input", "pasture=" + signed.input())
                .header("Signature", "pasture=" + signed.signature());
    }

    /** The host in lower case, with its port unless that is the usual one (RFC 9421, 2.2.3). */
    private static String authority(URI url) {
        String host = url.getHost().toLowerCase(Locale.ROOT);
        boolean usual = url.getPort() == -1 || url.getPort() == ("https".equals(url.getScheme()) ? 443 : 80);
        return usual ? host : host + ":" + url.getPort();
    }

    /** HMAC-SHA-256 (RFC 2104) over time, full stop and body. */
    static String signature(String key, String time, byte[] body) {
        return HexFormat.of()
                .formatHex(MessageSignature.hmac(
                        key.getBytes(StandardCharsets.UTF_8), (time + ".").getBytes(StandardCharsets.UTF_8), body));
    }

    @Override
    public void close() {
        client.shutdownNow();
    }
}
