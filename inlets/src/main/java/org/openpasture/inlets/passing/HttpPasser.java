package org.openpasture.inlets.passing;

import java.io.IOException;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.time.Clock;
import java.time.Duration;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.openpasture.core.outlet.Destination;
import org.openpasture.inlets.reach.Reach;

/**
 * Posts to an address. With a secret named "signing-key" each post carries {@code Pasture-Time} (seconds since 1970)
 * and {@code Pasture-Signature}: HMAC-SHA-256 by that key over the time, a full stop and the body, in hex digits. The
 * other secrets are headers. Redirects are not followed.
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

    /** HMAC-SHA-256 (RFC 2104) over time, full stop and body. */
    static String signature(String key, String time, byte[] body) {
        try {
            Mac mac = Mac.getInstance("HmacSHA256");
            mac.init(new SecretKeySpec(key.getBytes(StandardCharsets.UTF_8), "HmacSHA256"));
            mac.update((time + ".").getBytes(StandardCharsets.UTF_8));
            return HexFormat.of().formatHex(mac.doFinal(body));
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException(e);
        }
    }

    @Override
    public void close() {
        client.shutdownNow();
    }
}
