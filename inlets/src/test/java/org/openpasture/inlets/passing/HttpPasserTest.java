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
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.SequencedMap;
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

    /** The example of RFC 9421, B.2.5, with its key. */
    @Test
    void aMessageIsSignedAsTheStandardsExample() {
        SequencedMap<String, String> covered = new LinkedHashMap<>();
        covered.put("date", "Tue, 20 Apr 2021 02:07:55 GMT");
        covered.put("@authority", "example.com");
        covered.put("content-type", "application/json");
        byte[] key = Base64.getDecoder()
                .decode("uzvJfB4u3N0Jy4T7NZ75MDVcr8zSTInedJtkgcu46YW4XByzNJjxBdtjUkdJPBtbmHhIDi6pcl8jsasjlTMtDQ==");
        assertThat(MessageSignature.of(covered, Instant.ofEpochSecond(1618884473), "test-shared-secret", key))
                .isEqualTo(new MessageSignature(
                        "(\"date\" \"@authority\" \"content-type\");created=1618884473;keyid=\"test-shared-secret\"",
                        ":pxcQw6G3AjtMBQjwo8XzkZf/bws5LelbaMk5rGIGtE8=:"));
        // RFC 9530, B.1
        assertThat(MessageSignature.digest("{\"hello\": \"world\"}".getBytes(StandardCharsets.UTF_8)))
                .isEqualTo("sha-256=:X48E9qOokqqrvdts8nOJRJN3OWDUoyWxBf7kbu9DBPE=:");
    }

    @Test
    void whatIsPostedIsSignedWithItsAddressAndContent() throws Exception {
        pass(Map.of("signing-key", "key"));
        assertThat(heard.getFirst("Content-Digest")).isEqualTo(MessageSignature.digest(MESSAGE.body()));
        assertThat(heard.getFirst("Signature-Input"))
                .isEqualTo("pasture=(\"@method\" \"@authority\" \"@path\" \"@query\" \"content-type\""
                        + " \"content-digest\");created=1795694400;keyid=\"pasture\"");
        SequencedMap<String, String> covered = new LinkedHashMap<>();
        covered.put("@method", "POST");
        covered.put("@authority", heard.getFirst("Host"));
        covered.put("@path", "/take");
        covered.put("@query", "?");
        covered.put("content-type", "application/json");
        covered.put("content-digest", heard.getFirst("Content-Digest"));
        assertThat(heard.getFirst("Signature"))
                .isEqualTo("pasture="
                        + MessageSignature.of(
                                        covered, NOON.instant(), "pasture", "key".getBytes(StandardCharsets.UTF_8))
                                .signature());
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
