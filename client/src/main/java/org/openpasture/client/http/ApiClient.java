package org.openpasture.client.http;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.net.ConnectException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.function.BiPredicate;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Speaks to a service over its REST API. Thread-safe. */
public final class ApiClient {
    private static final Duration PATIENCE = Duration.ofSeconds(60);
    private static final Duration LONG_PATIENCE = Duration.ofHours(1);
    private final JsonMapper mapper = JsonMapper.builder().build();
    private final HttpClient http;
    private final URI base;
    private final @Nullable String token;

    /**
     * A client for a service.
     *
     * @param base "http://127.0.0.1:8470"
     * @param token from a sign-in; null before
     */
    public ApiClient(URI base, @Nullable String token) {
        this.base = base;
        this.token = token;
        this.http = HttpClient.newBuilder()
                .connectTimeout(Duration.ofSeconds(5))
                .version(HttpClient.Version.HTTP_1_1)
                .build();
    }

    public URI base() {
        return base;
    }

    /** The same service, as somebody who is signed in. */
    public ApiClient withToken(String given) {
        return new ApiClient(base, given);
    }

    public JsonNode get(String path) {
        return json(request(path).GET());
    }

    public <T> T get(String path, Class<T> type) {
        return mapper.treeToValue(get(path), type);
    }

    public JsonNode post(String path, Object body) {
        return json(
                request(path).header("Content-Type", "application/json").POST(text(mapper.writeValueAsString(body))));
    }

    public <T> T post(String path, Object body, Class<T> type) {
        return mapper.treeToValue(post(path, body), type);
    }

    public JsonNode put(String path, Object body) {
        return json(
                request(path).header("Content-Type", "application/json").PUT(text(mapper.writeValueAsString(body))));
    }

    public JsonNode delete(String path) {
        return json(request(path).DELETE());
    }

    /** Sends CSV. */
    public JsonNode postCsv(String path, InputStream csv) {
        return postFile(path, "text/csv", csv);
    }

    /** Sends a file as it is. */
    public JsonNode postFile(String path, String mediaType, InputStream file) {
        return json(
                request(path)
                        .header("Content-Type", mediaType)
                        .POST(HttpRequest.BodyPublishers.ofInputStream(() -> file)),
                LONG_PATIENCE);
    }

    /** Puts a file as it is. */
    public JsonNode putFile(String path, String mediaType, InputStream file) {
        return json(
                request(path)
                        .header("Content-Type", mediaType)
                        .PUT(HttpRequest.BodyPublishers.ofInputStream(() -> file)),
                LONG_PATIENCE);
    }

    /** Asks for something that may take long, such as a check of all records. */
    public JsonNode postAndWait(String path) {
        return json(request(path).header("Content-Type", "application/json").POST(text("{}")), LONG_PATIENCE);
    }

    private static HttpRequest.BodyPublisher text(String body) {
        return HttpRequest.BodyPublishers.ofString(body);
    }

    /** A parameter behind others, such as {@code &limit=50}; nothing for null. */
    public static String query(String name, @Nullable String value) {
        return value == null ? "" : "&" + name + "=" + escape(value);
    }

    private HttpRequest.Builder request(String path) {
        HttpRequest.Builder request = HttpRequest.newBuilder(base.resolve(path)).header("Accept", "application/json");
        if (token != null) {
            request.header("Authorization", "Bearer " + token);
        }
        return request;
    }

    private JsonNode json(HttpRequest.Builder request) {
        return json(request, PATIENCE);
    }

    private JsonNode json(HttpRequest.Builder request, Duration patience) {
        HttpResponse<InputStream> response = send(request.timeout(patience).build());
        try (InputStream body = response.body()) {
            byte[] bytes = body.readAllBytes();
            return bytes.length == 0 ? mapper.nullNode() : mapper.readTree(bytes);
        } catch (IOException | JacksonException e) {
            throw new ServiceUnreachable(base + " answered something that is no JSON; is it a Pasture service?", e);
        }
    }

    /** Copies an answer as it is, for exports. */
    public void download(String path, java.io.OutputStream to) throws IOException {
        download(path, to, part -> {});
    }

    /**
     * The same, and tells how far it is.
     *
     * @param about how many readings are to come, and how many lines have
     */
    public void download(String path, java.io.OutputStream to, Consumer<Downloaded> about) throws IOException {
        HttpResponse<InputStream> response =
                send(request(path).setHeader("Accept", "*/*").build());
        long expected = response.headers().firstValueAsLong("Pasture-Readings").orElse(0);
        byte[] part = new byte[1 << 16];
        long lines = 0;
        long bytes = 0;
        try (InputStream body = response.body()) {
            for (int read = body.read(part); read >= 0; read = body.read(part)) {
                to.write(part, 0, read);
                for (int i = 0; i < read; i++) {
                    lines += part[i] == '\n' ? 1 : 0;
                }
                bytes += read;
                about.accept(new Downloaded(expected, lines, bytes));
            }
        }
    }

    /** How far a download is. */
    public record Downloaded(long readingsExpected, long lines, long bytes) {}

    /**
     * Follows the live stream until the consumer says stop or the service ends it.
     *
     * @param each gets event name and data, and returns whether to go on
     */
    public void follow(String path, BiPredicate<String, JsonNode> each) {
        HttpResponse<InputStream> response =
                send(request(path).setHeader("Accept", "text/event-stream").build());
        try (BufferedReader lines =
                new BufferedReader(new InputStreamReader(response.body(), StandardCharsets.UTF_8))) {
            String name = "";
            for (String line = lines.readLine(); line != null; line = lines.readLine()) {
                if (line.startsWith("event:")) {
                    name = line.substring(6).strip();
                } else if (line.startsWith("data:") && !each.test(name, mapper.readTree(line.substring(5)))) {
                    return;
                }
            }
        } catch (IOException e) {
            throw new ServiceUnreachable("the live stream of " + base + " broke off", e);
        }
    }

    private HttpResponse<InputStream> send(HttpRequest request) {
        HttpResponse<InputStream> response;
        try {
            response = http.send(request, HttpResponse.BodyHandlers.ofInputStream());
        } catch (ConnectException e) {
            throw new ServiceUnreachable(
                    "nothing answers at " + base + "; is the service running? Start it with './pasture serve', or name "
                            + "another address with --at",
                    e);
        } catch (IOException e) {
            throw new ServiceUnreachable("cannot speak with " + base + ": " + e.getMessage(), e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new ServiceUnreachable("interrupted", e);
        }
        if (response.statusCode() >= 400) {
            throw problem(response);
        }
        return response;
    }

    private ServiceProblem problem(HttpResponse<InputStream> response) {
        try (InputStream body = response.body()) {
            JsonNode detail = mapper.readTree(body.readAllBytes());
            return new ServiceProblem(
                    response.statusCode(),
                    detail.path("type").asString("").replaceFirst("^.*[/:]", ""),
                    detail.path("detail").asString("the service refused it"),
                    detail.path("todo").asString(""));
        } catch (IOException | JacksonException e) {
            return new ServiceProblem(
                    response.statusCode(), "", "the service answered with status " + response.statusCode(), "");
        }
    }

    /** A text as a part of an address. */
    public static String escape(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
    }
}
