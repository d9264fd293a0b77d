package org.openpasture.core.inlet;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.openpasture.core.fleet.Proposal;
import org.openpasture.core.framing.Checksum;
import org.openpasture.core.framing.Framing;
import org.openpasture.core.framing.Splitter;
import org.openpasture.core.layout.JsonPath;
import org.openpasture.core.layout.Layout;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/**
 * True messages with a few bytes changed, cut short, or none at all: opened, read or refused, never an exception.
 * {@code -Dfuzz=N} for more.
 */
class HostileMessagesTest {
    private static final int ROUNDS = Integer.getInteger("fuzz", 8_000);
    private static final JsonMapper MAPPER = JsonMapper.shared();
    private static final List<byte[]> TRUE_ONES = List.of(
            text("WS2;8.4;1013;0.2\r\n"),
            text("$WIMWV,214.8,R,0.1,K,A*28\n"),
            text(
                    "{\"relay\":\"loft\",\"heard\":[{\"mac\":\"02:ab:54:00:00:01\",\"rssi\":-71,\"data\":\"02010607161a18660886 0b\"}]}"),
            text("[{\"bn\":\"urn:dev:1:\",\"bt\":1.79e9,\"n\":\"t\",\"v\":8.4},{\"n\":\"rh\",\"v\":61}]"),
            text("device,t,rh\nA,8.4,61\nB,\"8,5\",62\n"),
            HexFormat.of().parseHex("020106" + "07094c6f66742033" + "07161a18a2fe6a18" + "05ffffff860b"),
            HexFormat.of().parseHex("7e050a0703e8ffff"),
            HexFormat.of().parseHex("0300000004000100020003000400"));
    private static final List<Contents> CONTENTS = List.of(
                    "{\"form\":\"text\",\"address\":\"column:0\",\"time\":\"column:1\"}",
                    "{\"form\":\"json\",\"each\":\"$.heard[*]\",\"address\":\"json:$.mac\",\"payload\":\"json:$.data\",\"encoding\":\"hex\",\"signal\":\"json:$.rssi\"}",
                    "{\"form\":\"senml\"}",
                    "{\"form\":\"csv\",\"address\":\"json:$.device\"}",
                    "{\"form\":\"bytes\",\"address\":\"bytes:0+2\",\"payload\":\"bytes:2+4\"}")
            .stream()
            .map(json -> MAPPER.readValue(json, Contents.class))
            .toList();
    private static final List<Layout> LAYOUTS = List.of(
                    "{\"format\":\"line\",\"separator\":\";\",\"messages\":[{\"fields\":[{\"channel\":\"a\",\"at\":\"1\"},{\"channel\":\"b\",\"at\":\"-1\"},{\"channel\":\"c\",\"at\":\"T\"}]}]}",
                    "{\"format\":\"json\",\"fields\":[{\"channel\":\"a\",\"at\":\"$.heard[0].rssi\"},{\"channel\":\"b\",\"at\":\"$[?@.n=='rh'].v\"}]}",
                    "{\"format\":\"advert\",\"sections\":[{\"of\":\"service:181a\",\"fields\":[{\"channel\":\"a\",\"at\":0,\"type\":\"i16\"}]}]}",
                    "{\"format\":\"registers\",\"fields\":[{\"channel\":\"a\",\"table\":\"input\",\"at\":0,\"type\":\"f32\"},{\"channel\":\"b\",\"table\":\"coil\",\"at\":1}]}")
            .stream()
            .map(json -> MAPPER.readValue(json, Layout.class))
            .toList();
    private static final List<Framing> FRAMINGS = List.of(
            new Framing.Lines(null, true),
            new Framing.Lines(null, null),
            new Framing.Framed("7e", null, 1, null, null, 3, Checksum.CRC_16_MODBUS, "little", null, null, null),
            new Framing.Framed("7e05", 8, null, null, null, null, Checksum.XOR_8, null, 1, "0d", 3));

    private static byte[] text(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private static byte[] wild(Random random) {
        byte[] bytes = TRUE_ONES.get(random.nextInt(TRUE_ONES.size())).clone();
        for (int i = random.nextInt(5); i > 0; i--) {
            bytes[random.nextInt(bytes.length)] = (byte) random.nextInt(256);
        }
        return random.nextInt(4) == 0 ? Arrays.copyOf(bytes, random.nextInt(bytes.length + 1)) : bytes;
    }

    @Test
    void noMessageThrows() {
        Random random = new Random(21);
        for (int i = 0; i < ROUNDS; i++) {
            byte[] bytes = wild(random);
            for (Contents contents : CONTENTS) {
                for (Item item : Opener.open(contents, new Arrived(bytes, "x", Map.of()), Instant.EPOCH)) {
                    if (item instanceof Item.Opened opened) {
                        LAYOUTS.forEach(layout ->
                                assertThat(layout.decode(0, opened.payload())).isNotNull());
                    }
                }
            }
            LAYOUTS.forEach(layout -> assertThat(layout.parts(0, bytes)).isNotNull());
            assertThat(Proposal.of(bytes)).isNotNull();
        }
    }

    @Test
    void noStreamThrowsOrIsHeldWithoutEnd() {
        Random random = new Random(22);
        List<Splitter> splitters = FRAMINGS.stream().map(Framing::splitter).toList();
        for (int i = 0; i < ROUNDS; i++) {
            byte[] bytes = wild(random);
            for (Splitter splitter : splitters) {
                splitter.feed(bytes);
                if (i % 50 == 0) {
                    splitter.end();
                    assertThat(splitter.end()).as("nothing is left").isEmpty();
                }
            }
        }
    }

    @Test
    void noDescriptionThrowsWhatIsNotSaidInWords() {
        Random random = new Random(23);
        List<String> described = List.of(
                "{\"form\":\"json\",\"each\":\"$.a[*]\",\"address\":\"json:$.mac\"}",
                "{\"form\":\"text\",\"address\":\"column:0\",\"separator\":\";\"}");
        for (int i = 0; i < ROUNDS; i++) {
            byte[] bytes = described.get(random.nextInt(2)).getBytes(StandardCharsets.US_ASCII);
            for (int k = random.nextInt(3); k >= 0; k--) {
                bytes[random.nextInt(bytes.length)] = (byte) (32 + random.nextInt(95));
            }
            try {
                Contents contents = MAPPER.readValue(bytes, Contents.class);
                assertThat(Opener.open(contents, new Arrived(TRUE_ONES.get(2), "x", Map.of()), Instant.EPOCH))
                        .isNotEmpty();
            } catch (JacksonException e) {
                assertThat(e.getMessage()).isNotBlank();
            }
        }
        for (String path : List.of("$[?@.a==", "$[[[", "$...a", "$['", "$[-999999999999]")) {
            try {
                JsonPath.of(path);
            } catch (IllegalArgumentException e) {
                assertThat(e.getMessage()).contains(path);
            }
        }
    }
}
