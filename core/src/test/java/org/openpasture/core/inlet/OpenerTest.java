package org.openpasture.core.inlet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.openpasture.core.layout.JsonPath;
import tools.jackson.databind.json.JsonMapper;

class OpenerTest {
    private static final Instant NOW = Instant.parse("2026-11-25T12:00:00Z");

    private static Arrived text(String text) {
        return new Arrived(
                text.getBytes(StandardCharsets.UTF_8), "192.0.2.7:5000", Map.of("serial", "S42", "x-device", "D9"));
    }

    private static List<Item> open(Contents contents, String message) {
        return Opener.open(contents, text(message), NOW);
    }

    private static Item.Opened opened(Contents contents, String message) {
        return (Item.Opened) open(contents, message).getFirst();
    }

    private static String reason(Contents contents, String message) {
        return ((Item.Refused) open(contents, message).getFirst()).reason();
    }

    private static Contents contents(String json) {
        return JsonMapper.shared().readValue(json, Contents.class);
    }

    @ParameterizedTest
    @CsvSource({
        "column:0, WS2",
        "column:-1, 0.2",
        "topic:serial, S42",
        "header:X-Device, D9",
        "sender, 192.0.2.7:5000",
        "fixed:mast, mast",
        "bytes:0+3, 575332"
    })
    void findsWhoseALineIs(String where, String address) {
        assertThat(opened(contents("{\"form\": \"text\", \"address\": \"" + where + "\"}"), "WS2;8.4;1013;0.2")
                        .address())
                .isEqualTo(address);
    }

    @Test
    void relaysPutManyBeaconsIntoOneMessage() {
        Contents relay = contents("""
        {"form": "json", "each": "$.heard[*]", "address": "json:$.mac", "payload": "json:$.data", "encoding": "hex", "signal": "json:$.rssi", "time": "json:$.ts"}""");
        List<Item> items = open(relay, """
        {"relay": "loft", "heard": [{"mac": "02:AB:54:00:00:01", "data": "020106", "rssi": -71, "ts": 1790000000},
          {"mac": "02:AB:54:00:00:02", "data": "xyz"}, {"data": "020106"}, {"mac": "02:AB:54:00:00:03", "data": "02 01 06", "ts": "yesterday"}]}""");
        assertThat(items).hasSize(4);
        assertThat((Item.Opened) items.getFirst()).satisfies(item -> {
            assertThat(item.address()).isEqualTo("02:AB:54:00:00:01");
            assertThat(HexFormat.of().formatHex(item.payload())).isEqualTo("020106");
            assertThat(item.signalDbm()).isEqualTo(-71.0);
            assertThat(item.time()).isEqualTo(Instant.ofEpochSecond(1_790_000_000));
        });
        assertThat(items.subList(1, 4))
                .extracting(item -> ((Item.Refused) item).reason())
                .satisfiesExactly(
                        reason -> assertThat(reason).startsWith("its payload is not written in hex: "),
                        reason -> assertThat(reason)
                                .isEqualTo("it does not say whose it is: there is nothing at json:$.mac"),
                        reason -> assertThat(reason)
                                .isEqualTo(
                                        "'yesterday' is no time: ISO 8601 with a zone, or seconds or milliseconds since 1970"));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "1790000000",
                "1790000000000",
                "1790000000000000000",
                "2026-09-21T14:13:20Z",
                "2026-09-21 15:13:20+01:00"
            })
    void understandsTimesAsTheyAreWritten(String time) {
        Contents contents = new Contents(
                Contents.Form.TEXT, new Locator.Column(0), ";", null, null, null, new Locator.Column(1), null);
        assertThat(opened(contents, "A;" + time).time()).isEqualTo(Instant.ofEpochSecond(1_790_000_000));
    }

    @Test
    void base64IsReadInBothAlphabets() {
        Contents contents = contents(
                "{\"form\": \"json\", \"address\": \"json:$.id\", \"payload\": \"json:$.p\", \"encoding\": \"base64\"}");
        assertThat(HexFormat.of()
                        .formatHex(
                                opened(contents, "{\"id\": 7, \"p\": \"-_8=\"}").payload()))
                .isEqualTo("fbff");
        assertThat(opened(contents, "{\"id\": 7, \"p\": \"+/8=\"}").address()).isEqualTo("7");
    }

    @Test
    void eachLineOfCsvIsOneDevices() {
        Contents csv = contents("{\"form\": \"csv\", \"address\": \"json:$.device\"}");
        List<Item> items = open(csv, "device,t,\"rel hum\"\nA,8.4,60\n\nB,8.5\nC,\"8,6\",61\n");
        assertThat(((Item.Opened) items.getFirst()).payload())
                .asString()
                .isEqualTo("{\"device\":\"A\",\"t\":\"8.4\",\"rel hum\":\"60\"}");
        assertThat(((Item.Refused) items.get(1)).reason())
                .isEqualTo("the line has 2 columns, but the first line names 3");
        assertThat(((Item.Opened) items.get(2)).payload()).asString().contains("\"t\":\"8,6\"");
        assertThat(items).hasSize(3);
        assertThat(reason(csv, "device,t\n")).isEqualTo("there is no line after the one that names the columns");
    }

    /** After the examples of RFC 8428, 5.1.3: base name and time hold until they are said anew. */
    @Test
    void senmlNamesAreAddressesAndChannels() {
        Contents senml = contents("{\"form\": \"senml\"}");
        List<Item> items = open(senml, """
        [{"bn": "urn:dev:ow:10e2073a01080063:", "bt": 1.790000003e9, "bu": "A", "n": "voltage", "u": "V", "v": 120.1},
         {"n": "current", "v": 1.2}, {"n": "current", "t": -5, "v": 1.3}, {"n": "open", "vb": true}, {"bn": "x", "v": 1}]""");
        assertThat(items.stream().filter(Item.Opened.class::isInstance).map(item -> (Item.Opened) item))
                .extracting(
                        Item.Opened::address,
                        item -> new String(item.payload(), StandardCharsets.UTF_8),
                        Item.Opened::time)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple(
                                "urn:dev:ow:10e2073a01080063",
                                "{\"voltage\":120.1,\"current\":1.2,\"open\":true}",
                                Instant.ofEpochSecond(1_790_000_003)),
                        org.assertj.core.groups.Tuple.tuple(
                                "urn:dev:ow:10e2073a01080063",
                                "{\"current\":1.3}",
                                Instant.ofEpochSecond(1_789_999_998)));
        assertThat(items).filteredOn(Item.Refused.class::isInstance).hasSize(1);
        assertThat(reason(senml, "{}")).contains("RFC 8428");
    }

    /** RFC 8428, 4.5.3: times below 2^28 count from now on, those that are past with a minus. */
    @Test
    void senmlTimesMayCountFromNowOn() {
        List<Item> items = open(contents("{\"form\": \"senml\"}"), """
        [{"n": "dev:t", "v": 1}, {"n": "dev:t", "t": -5, "v": 2}, {"n": "dev:t", "t": 1e200, "v": 3}, {"n": "dev:t", "t": 1e999, "v": 4}]""");
        assertThat(items)
                .filteredOn(Item.Opened.class::isInstance)
                .extracting(item -> ((Item.Opened) item).time())
                .containsExactly(null, NOW.minusSeconds(5));
        assertThat(((Item.Refused) items.getFirst()).reason()).isEqualTo("its time lies thousands of years away");
        assertThat(items.get(1)).isInstanceOf(Item.Refused.class);
    }

    @Test
    void whatCannotBeOpenedIsRefusedInWords() {
        assertThat(reason(Contents.json("$.id"), "{")).startsWith("it is no JSON");
        assertThat(reason(Contents.json("$.id"), "{\"id\": null}"))
                .isEqualTo("it does not say whose it is: there is nothing at json:$.id");
        assertThat(reason(Contents.lines(";", 7), "a;b"))
                .isEqualTo("it does not say whose it is: there is nothing at column:7");
        assertThat(reason(
                        new Contents(
                                Contents.Form.JSON,
                                Locator.of("json:$.id"),
                                null,
                                JsonPath.of("$.list[*]"),
                                null,
                                null,
                                null,
                                null),
                        "{}"))
                .isEqualTo("nothing in it lies at $.list[*]");
        assertThatThrownBy(() -> contents("{\"form\": \"text\"}"))
                .hasMessageContaining("where the sender's address stands");
        assertThatThrownBy(() -> Locator.of("pillar:3")).hasMessageContaining("column:0, json:$.mac");
    }

    @Property(tries = 500)
    void anyMessageIsOpenedOrRefused(@ForAll byte[] noise) {
        for (String contents : List.of(
                "{\"form\": \"text\", \"address\": \"column:1\"}",
                "{\"form\": \"bytes\", \"address\": \"bytes:2+4\", \"payload\": \"bytes:6+2\"}",
                "{\"form\": \"csv\", \"address\": \"json:$.a\"}",
                "{\"form\": \"senml\"}",
                "{\"form\": \"json\", \"address\": \"json:$.a\", \"each\": \"$[*]\"}")) {
            assertThat(Opener.open(contents(contents), new Arrived(noise, "x", Map.of()), NOW))
                    .isNotEmpty();
        }
    }

    /** {"id": "b7", "t": 8.5} by RFC 8949: a map of two, a text of two, and so on. */
    @Test
    void cborIsReadAsTheJsonThatSaysTheSame() {
        Contents contents = contents("{\"form\":\"cbor\",\"address\":\"json:$.id\"}");
        Item.Opened opened = (Item.Opened) Opener.open(
                        contents,
                        new Arrived(HexFormat.of().parseHex("a2626964626237" + "6174f94840"), "x", Map.of()),
                        NOW)
                .getFirst();
        assertThat(opened.address()).isEqualTo("b7");
        assertThat(new String(opened.payload(), StandardCharsets.UTF_8)).isEqualTo("{\"id\":\"b7\",\"t\":8.5}");
        assertThat(((Item.Refused) Opener.open(
                                        contents, new Arrived(HexFormat.of().parseHex("a26269"), "x", Map.of()), NOW)
                                .getFirst())
                        .reason())
                .isEqualTo("it is no CBOR");
    }

    /** RFC 8428, 6: the labels of a pack are numbers. */
    @Test
    void senmlMayComeInCbor() {
        byte[] pack = HexFormat.of()
                .parseHex("81a421" + "67" + HexFormat.of().formatHex("urn:x:/".getBytes(StandardCharsets.UTF_8)) + "00"
                        + "6174" + "02" + "f94840" + "22" + "1a6a10e500");
        Item.Opened opened =
                (Item.Opened) Opener.open(contents("{\"form\":\"senml\"}"), new Arrived(pack, "x", Map.of()), NOW)
                        .getFirst();
        assertThat(opened.address()).isEqualTo("urn:x:");
        assertThat(new String(opened.payload(), StandardCharsets.UTF_8)).isEqualTo("{\"t\":8.5}");
    }

    @Test
    void aListWithNothingNewIsNoMistake() {
        Contents contents = contents("{\"form\":\"json\",\"each\":\"$.trend[*]\",\"address\":\"json:$.id\"}");
        assertThat(open(contents, "{\"trend\":[]}")).isEmpty();
        assertThat(reason(contents, "{\"other\":[]}")).startsWith("nothing in it lies at");
    }
}
