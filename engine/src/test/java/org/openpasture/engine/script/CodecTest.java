package org.openpasture.engine.script;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.openpasture.core.layout.ChannelValue;
import org.openpasture.core.layout.Decoding;
import tools.jackson.databind.node.JsonNodeFactory;

/** Codecs as makers publish them, and scripts that mean no good. */
class CodecTest {
    private static final Instant NOON = Instant.parse("2026-03-01T12:00:00Z");
    private static final String USUAL = """
      // A maker's codec, in the old style and the new.
      var names = ['temperature', 'humidity'];
      function readUInt(bytes, at) { return bytes[at] << 8 | bytes[at + 1]; }
      function decodeUplink(input) {
        const data = {};
        for (let i = 0; i < names.length; i++) { data[names[i]] = readUInt(input.bytes, 2 * i) / 10; }
        data.door = { open: input.bytes[4] === 1, count: [input.bytes[4], 2] };
        data.model = 'KX-1';
        console.log('seen');
        if (input.bytes[5] === 0xff) { return { errors: ['sensor fault'] }; }
        return { data, warnings: [] };
      }
      function encodeDownlink(input) { return { fPort: 10, bytes: [1, input.data.interval >> 8, input.data.interval & 255] }; }
      """;

    private static Decoding decode(String script, int... bytes) {
        byte[] payload = new byte[bytes.length];
        for (int i = 0; i < bytes.length; i++) {
            payload[i] = (byte) bytes[i];
        }
        try (Codec codec = new Codec(script)) {
            return codec.decode(2, payload, NOON).join();
        }
    }

    private static String refusal(String script, int... bytes) {
        return ((Decoding.Refused) decode(script, bytes)).reason();
    }

    @Test
    void numbersAndTruthValuesBecomeChannels() {
        assertThat(decode(USUAL, 0, 215, 2, 88, 1, 0))
                .isEqualTo(new Decoding.Decoded(List.of(
                        new ChannelValue("temperature", 21.5),
                        new ChannelValue("humidity", 60),
                        new ChannelValue("door.open", 1),
                        new ChannelValue("door.count.0", 1),
                        new ChannelValue("door.count.1", 2))));
    }

    @Test
    void theScriptsOwnErrorsAreSaid() {
        assertThat(refusal(USUAL, 0, 0, 0, 0, 0, 255)).isEqualTo("the script says: sensor fault");
    }

    @Test
    void itWritesWhatIsToBeSent() {
        try (Codec codec = new Codec(USUAL)) {
            Codec.Encoded encoded = codec.encode(
                            JsonNodeFactory.instance.objectNode().put("interval", 1_200))
                    .join();
            assertThat(encoded.port()).isEqualTo(10);
            assertThat(encoded.bytes()).containsExactly(1, 4, (byte) 176);
        }
    }

    @Test
    void itKnowsPortAndTime() {
        assertThat(
                        decode(
                                "function decodeUplink(i) { return {data: {port: i.fPort, hour: new Date(i.recvTime).getUTCHours(), n: i.bytes.length}} }"))
                .isEqualTo(new Decoding.Decoded(
                        List.of(new ChannelValue("port", 2), new ChannelValue("hour", 12), new ChannelValue("n", 0))));
    }

    @Test
    void noCallLearnsOfAnother() {
        try (Codec codec = new Codec(
                "var n = 0; function decodeUplink(i) { n++; globalThis.x = (globalThis.x || 0) + 1; return {data: {n: n, x: globalThis.x}} }")) {
            Decoding first = codec.decode(1, new byte[1], NOON).join();
            assertThat(codec.decode(1, new byte[1], NOON).join()).isEqualTo(first);
            assertThat(first)
                    .isEqualTo(new Decoding.Decoded(List.of(new ChannelValue("n", 1), new ChannelValue("x", 1))));
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "function decodeUplink(i) { while (true) {} } | ran too long",
                "while (true) {} | ran too long",
                "function decodeUplink(i) { return /(a+)+$/.test('a'.repeat(60) + 'b') } | ran too long",
                "function decodeUplink(i) { let a = []; while (true) a.push(new Array(100000).fill(1)) } | out of memory",
                "function decodeUplink(i) { return 'x'.repeat(1 << 28) } | out of memory",
                "function decodeUplink(i) { function f() { f() } f() } | ",
                "function decodeUplink(i) { throw new Error('no such sensor') } | no such sensor",
                "function decodeUplink(i) { return i.nothing.there } | the script failed",
                "function decodeUplink(i) { return {data: {t: 1 / 0}} ; | SyntaxError",
                "function decode(i) { return {} } | has no function decodeUplink",
                "function decodeUplink(i) { } | gave no data",
                "function decodeUplink(i) { return {data: {t: 'x'.repeat(30000)}} } | longer than 20000 characters"
            })
    void whatGoesWrongIsSaidInWords(String script, String words) {
        assertThat(refusal(script, 1)).contains(words == null ? "" : words);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "require('fs')",
                "process.exit(1)",
                "fetch('http://127.0.0.1')",
                "new XMLHttpRequest()",
                "Deno.readFile('/etc/passwd')",
                "new Function('return this')().std.open('/etc/passwd')",
                "import('fs').then(f => f.x)",
                "new Worker('x')",
                "setTimeout(() => {}, 1)"
            })
    void thereIsNothingToReachOutWith(String attack) {
        assertThat(decode(
                        "function decodeUplink(i) { " + attack + "; return {errors: ['it worked without a word']} }",
                        1))
                .isInstanceOf(Decoding.Refused.class);
    }

    @Test
    void oneThatRunsWildRestsAndHoldsUpNobodyElse() {
        try (Codec wild = new Codec(
                        "function decodeUplink(i) { if (i.bytes[0]) while (true) {} return {data: {ok: 1}} }");
                Codec other = new Codec(USUAL)) {
            List<java.util.concurrent.CompletableFuture<Decoding>> running = new java.util.ArrayList<>();
            for (int i = 0; i < 6; i++) {
                running.add(wild.decode(1, new byte[] {1}, NOON));
            }
            assertThat(other.decode(2, new byte[] {0, 1, 0, 2, 0, 0}, NOON).join())
                    .isInstanceOf(Decoding.Decoded.class);
            assertThat(running.stream()
                            .filter(java.util.concurrent.CompletableFuture::isDone)
                            .count())
                    .as("the wild one is still at it")
                    .isLessThan(6);
            assertThat(((Decoding.Refused) running.getLast().join()).reason())
                    .contains("5 times in a row and rests for a minute");
        }
    }

    @Test
    void oneThatComplainsOfSomethingTooLongDoesNotRest() {
        try (Codec codec = new Codec(
                "function decodeUplink(i) { if (i.bytes[0]) throw 'the payload is too long'; return {data: {ok: 1}} }")) {
            for (int i = 0; i < 6; i++) {
                assertThat(codec.decode(1, new byte[] {1}, NOON).join())
                        .isEqualTo(new Decoding.Refused("the script failed: the payload is too long"));
            }
            assertThat(codec.decode(1, new byte[1], NOON).join()).isInstanceOf(Decoding.Decoded.class);
        }
    }

    @Test
    void afterAFailureItIsAsGoodAsNew() {
        try (Codec codec =
                new Codec("function decodeUplink(i) { if (i.bytes[0]) throw 'no'; return {data: {ok: 1}} }")) {
            assertThat(codec.decode(1, new byte[] {1}, NOON).join()).isInstanceOf(Decoding.Refused.class);
            assertThat(codec.decode(1, new byte[] {0}, NOON).join())
                    .isEqualTo(new Decoding.Decoded(List.of(new ChannelValue("ok", 1))));
        }
    }

    @Test
    void whatCannotBeWrittenFails() {
        try (Codec codec = new Codec("function encodeDownlink(i) { return {bytes: [1]} }")) {
            assertThatThrownBy(() ->
                            codec.encode(JsonNodeFactory.instance.objectNode()).join())
                    .hasMessageContaining("no bytes for a port");
        }
    }
}
