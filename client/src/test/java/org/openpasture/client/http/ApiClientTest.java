package org.openpasture.client.http;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Over a real socket, against a server that answers what the test says. */
class ApiClientTest {
    private record Asked(String method, String path, String authorization, String type, String body) {}

    private final List<Asked> asked = new CopyOnWriteArrayList<>();
    private HttpServer server;
    private ApiClient api;

    @BeforeEach
    void start() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.start();
        api = new ApiClient(URI.create("http://127.0.0.1:" + server.getAddress().getPort() + "/"), "token-1");
    }

    @AfterEach
    void stop() {
        server.stop(0);
    }

    private void answers(String path, int status, String type, String body) {
        server.createContext(path, exchange -> {
            note(exchange);
            exchange.getResponseHeaders().set("Content-Type", type);
            byte[] bytes = body.getBytes(StandardCharsets.UTF_8);
            exchange.sendResponseHeaders(status, bytes.length == 0 ? -1 : bytes.length);
            exchange.getResponseBody().write(bytes);
            exchange.close();
        });
    }

    private void note(HttpExchange exchange) throws IOException {
        asked.add(new Asked(
                exchange.getRequestMethod(),
                exchange.getRequestURI().toString(),
                exchange.getRequestHeaders().getFirst("Authorization"),
                exchange.getRequestHeaders().getFirst("Content-Type"),
                new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8)));
    }

    @Test
    void asksAsWhoIsSignedIn() {
        answers("/api/v1/places", 200, "application/json", "[{\"name\": \"Creamery\"}]");
        assertThat(api.get("api/v1/places").path(0).path("name").asString()).isEqualTo("Creamery");
        assertThat(asked).containsExactly(new Asked("GET", "/api/v1/places", "Bearer token-1", null, ""));
    }

    @Test
    void sendsJsonAndCsv() {
        answers("/api/v1/sites", 201, "application/json", "{\"id\": \"s\"}");
        answers("/api/v1/readings/import", 200, "application/json", "{\"accepted\": 1}");
        api.post("api/v1/sites", Map.of("name", "Creamery"));
        api.postCsv(
                "api/v1/readings/import",
                new ByteArrayInputStream("time,point,value\n".getBytes(StandardCharsets.UTF_8)));
        assertThat(asked).extracting(Asked::type).containsExactly("application/json", "text/csv");
        assertThat(asked).extracting(Asked::body).containsExactly("{\"name\":\"Creamery\"}", "time,point,value\n");
    }

    @Test
    void aRefusalCarriesTheServicesWordsAndWhatToDo() {
        answers(
                "/api/v1/sites",
                403,
                "application/problem+json",
                "{\"detail\": \"You may not make sites.\", \"todo\": \"Ask the owner.\"}");
        assertThatThrownBy(() -> api.post("api/v1/sites", Map.of()))
                .isInstanceOfSatisfying(ServiceProblem.class, problem -> {
                    assertThat(problem.status()).isEqualTo(403);
                    assertThat(problem).hasMessage("You may not make sites.");
                    assertThat(problem.todo()).isEqualTo("Ask the owner.");
                });
    }

    @Test
    void aRefusalThatIsNoProblemDetailIsStillOneSentence() {
        answers("/api/v1/sites", 502, "text/html", "<html>bad gateway</html>");
        assertThatThrownBy(() -> api.get("api/v1/sites")).hasMessage("the service answered with status 502");
    }

    @Test
    void anAnswerThatIsNoJsonIsNotAPastureService() {
        answers("/api/v1/sites", 200, "text/html", "<html>router login</html>");
        assertThatThrownBy(() -> api.get("api/v1/sites"))
                .isInstanceOf(ServiceUnreachable.class)
                .hasMessageContaining("is it a Pasture service?");
    }

    @Test
    void whereNobodyAnswersThatIsSaidWithTheNextStep() {
        server.stop(0);
        assertThatThrownBy(() -> api.get("api/v1/sites"))
                .isInstanceOf(ServiceUnreachable.class)
                .hasMessageContaining("nothing answers at http://127.0.0.1:")
                .hasMessageContaining("./pasture serve");
    }

    @Test
    void aStreamIsFollowedUntilTheReaderHasEnough() {
        answers(
                "/api/v1/stream",
                200,
                "text/event-stream",
                "event:hello\ndata:{}\n\n:still here\n\nevent:reading\ndata:{\"n\":1}\n\nevent:reading\ndata:{\"n\":2}\n\n"
                        + "event:reading\ndata:{\"n\":3}\n\n");
        List<String> told = new ArrayList<>();
        api.follow("api/v1/stream?events=reading", (name, data) -> {
            told.add(name + data.path("n").asString(""));
            return told.size() < 3;
        });
        assertThat(told).containsExactly("hello", "reading1", "reading2");
    }

    @Test
    void aDownloadIsCopiedAsItIs() throws IOException {
        answers("/api/v1/readings/export", 200, "text/csv", "time,value\r\n2026-03-01T08:00:00Z,1\r\n");
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        api.download("api/v1/readings/export", out);
        assertThat(out.toString(StandardCharsets.UTF_8)).isEqualTo("time,value\r\n2026-03-01T08:00:00Z,1\r\n");
    }

    @Test
    void textInAnAddressIsEscaped() {
        assertThat(ApiClient.escape("Silo 1/ä")).isEqualTo("Silo%201%2F%C3%A4");
    }
}
