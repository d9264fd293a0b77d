package org.openpasture.inlets.passing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.Headers;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.openpasture.core.outlet.Destination;
import org.openpasture.inlets.reach.Reach;

/** Posts to an address that plays the outside. */
class HttpPasserTest {
    private static final Clock NOON = Clock.fixed(Instant.parse("2026-11-26T12:00:00Z"), ZoneOffset.UTC);
    private static final Passer.Message MESSAGE =
            new Passer.Message("", "application/json", "[1]".getBytes(StandardCharsets.UTF_8));
    private HttpServer outside;
    private volatile int status = 200;
    private volatile String answer = "";
    private volatile Headers heard = new Headers();

    @BeforeEach
    void open() throws IOException {
        outside = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        outside.createContext("/", exchange -> {
            heard = exchange.getRequestHeaders();
            exchange.getResponseHeaders().set("Location", "/elsewhere");
            byte[] bytes = answer.getBytes(StandardCharsets.UTF_8);
            exchange.sendResponseHeaders(status, bytes.length == 0 ? -1 : bytes.length);
            exchange.getResponseBody().write(bytes);
            exchange.close();
        });
        outside.start();
    }

    @AfterEach
    void close() {
        outside.stop(0);
    }

    private String pass(Map<String, String> secrets) throws Exception {
        URI url = URI.create("http://127.0.0.1:" + outside.getAddress().getPort() + "/take");
        try (HttpPasser passer = new HttpPasser(new Destination.HttpPost(url, true), secrets, Reach.ANYWHERE, NOON)) {
            return passer.pass(MESSAGE);
        }
    }

    @Test
    void secretsAreHeadersAndAKeySigns() throws Exception {
        answer = "thanks";
        assertThat(pass(Map.of("X-Dairy", "hush", "signing-key", "key"))).isEqualTo("It answered 200: thanks");
        assertThat(heard.getFirst("X-Dairy")).isEqualTo("hush");
        assertThat(heard.getFirst("Content-Type")).isEqualTo("application/json");
        assertThat(heard.getFirst("Pasture-Time")).isEqualTo("1795694400");
        assertThat(heard.getFirst("Pasture-Signature"))
                .isEqualTo(HttpPasser.signature("key", "1795694400", MESSAGE.body()))
                .hasSize(64);
        assertThat(heard.getFirst("signing-key"))
                .as("the key itself stays here")
                .isNull();
    }

    /** As {@code printf '1795694400.[1]' | openssl dgst -sha256 -hmac key} has it. */
    @Test
    void theSignatureIsWhatOthersComeTo() {
        assertThat(HttpPasser.signature("key", "1795694400", MESSAGE.body()))
                .isEqualTo("4065d520702fd43fcaccb58c3fe152ebec6ec980fc3219e0fed450a1c8074788");
    }

    @ParameterizedTest
    @CsvSource({
        "400, true",
        "413, true",
        "422, true",
        "401, false",
        "404, false",
        "409, false",
        "429, false",
        "500, false",
        "503, false",
        "302, false"
    })
    void onlyWhatIsWrongWithTheMessageIsARefusal(int said, boolean refusal) {
        status = said;
        answer = "no";
        assertThatThrownBy(() -> pass(Map.of()))
                .isInstanceOf(IOException.class)
                .hasMessage("127.0.0.1 answers " + said + ": no")
                .satisfies(error -> assertThat(error instanceof Passer.Refused).isEqualTo(refusal));
    }

    @Test
    void addressesAroundTheServiceNeedLeave() {
        URI inside = URI.create("http://127.0.0.1:" + outside.getAddress().getPort() + "/");
        assertThatThrownBy(() -> {
                    try (HttpPasser passer =
                            new HttpPasser(new Destination.HttpPost(inside, null), Map.of(), Reach.OUTSIDE, NOON)) {
                        passer.pass(MESSAGE);
                    }
                })
                .isInstanceOf(IOException.class)
                .hasMessageContaining("was not allowed to go");
    }

    @Test
    void anOutsideThatIsAwayIsSaid() {
        outside.stop(0);
        assertThatThrownBy(() -> pass(Map.of()))
                .isInstanceOf(IOException.class)
                .hasMessageStartingWith("127.0.0.1 cannot be reached: ");
    }
}
