package org.openpasture.core.layout;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.charset.StandardCharsets;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Lines of text, JSON and adverts. */
class TextLayoutsTest {
    private static String read(Layout layout, String text) {
        return read(layout, text.getBytes(StandardCharsets.UTF_8));
    }

    private static String read(Layout layout, byte[] payload) {
        return switch (layout.decode(0, payload)) {
            case Decoding.Decoded(List<ChannelValue> values, var waveforms, var remarks) ->
                values.toString().replaceAll("ChannelValue\\[channel=(\\w+), value=([^]]+)]", "$1 $2");
            case Decoding.Refused(String reason) -> reason;
        };
    }

    private static final LineLayout MAST = LineLayout.of(
            ";", TextField.of("temperature", "1"), TextField.of("pressure", "2"), TextField.of("rain", "-1"));

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "WS2;8.4;1013;0.2 | [temperature 8.4, pressure 1013.0, rain 0.2]",
                "WS2;-8,4;1013 hPa;.2 | [temperature -8.4, pressure 1013.0, rain 0.2]",
                "WS2;;1e3;0 | [pressure 1000.0, rain 0.0]",
                "WS2;8.4 | the line has 2 columns, but 'pressure' stands in column 2",
                "WS2;warm;1013;0.2 | 'temperature' is no number: 'warm'"
            })
    void readsColumnsOfALine(String line, String values) {
        assertThat(read(MAST, line)).isEqualTo(values);
    }

    @Test
    void readsLabelledValuesInAnyOrder() {
        LineLayout layout = LineLayout.of(" ", TextField.of("t", "T"), TextField.of("level", "lvl"));
        assertThat(read(layout, "node7  lvl:1.25\tT=8.4")).isEqualTo("[t 8.4, level 1.25]");
        assertThat(read(layout, "node7 T=8.4")).isEqualTo("the line has no value labelled 'lvl' for 'level'");
    }

    @Test
    void tellsKindsOfLinesApartByTheirBeginning() {
        LineLayout layout = new LineLayout(
                ",",
                List.of(
                        new LineLayout.Line("W,", List.of(TextField.of("wind", "1"))),
                        new LineLayout.Line("T,", List.of(TextField.of("temperature", "1")))));
        assertThat(read(layout, "T,8.4")).isEqualTo("[temperature 8.4]");
        assertThat(read(layout, "W,3")).isEqualTo("[wind 3.0]");
        assertThat(read(layout, "X,3")).isEqualTo("the layout describes no line that begins like this one");
        assertThat(layout.channels()).containsExactly("wind", "temperature");
    }

    @Test
    void scalesKnowsWordsAndWhatMeansNothing() {
        LineLayout layout = LineLayout.of(
                ";",
                new TextField("raw", "0", -0.1, 102.4, "9999", null, null),
                new TextField("door", "1", null, null, null, Map.of("open", 1.0, "shut", 0.0), null));
        assertThat(read(layout, "1024;open"))
                .as("the raw number of a probe falls as it gets wetter")
                .isEqualTo("[raw 0.0, door 1.0]");
        assertThat(read(layout, "9999;shut")).isEqualTo("[door 0.0]");
    }

    @Test
    void tellsWhereInTheLineAValueStands() {
        assertThat(MAST.parts(0, "WS2;8.4;1013;0.2".getBytes(StandardCharsets.US_ASCII)))
                .containsExactly(
                        new Layout.Part("temperature", 4, 7),
                        new Layout.Part("pressure", 8, 12),
                        new Layout.Part("rain", 13, 16));
    }

    private static final JsonLayout HUB = new JsonLayout(List.of(
            TextField.of("t", "$.air.temp"),
            TextField.of("second", "$.probes[-1].v"),
            TextField.of("b", "$.probes[?@.id=='b'].v"),
            TextField.of("door", "$['door open']")));

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '\0',
            value = {
                "{\"air\":{\"temp\":\"8.4\"},\"probes\":[{\"id\":\"a\",\"v\":1},{\"id\":\"b\",\"v\":2}],\"door open\":true} | [t 8.4, second 2.0, b 2.0, door 1.0]",
                "{\"air\":{\"temp\":null},\"probes\":[]} | []",
                "{\"door open\":false} | [door 0.0]",
                "{\"water\":1} | nothing in it lies at $.air.temp, $.probes[-1].v, $.probes[?@.id=='b'].v, $['door open']",
                "{\"air\":{\"temp\":\"mild\"}} | 't' is no number: 'mild'"
            })
    void readsPathsOfJson(String json, String values) {
        assertThat(read(HUB, json)).isEqualTo(values);
    }

    @Test
    void aTextIsTheFirstThatIsThere() {
        JsonNode hub = JsonMapper.shared().readTree("{\"ids\":[null,{},\"b7\",\"b8\"],\"id\":null,\"name\":\"loft\"}");
        assertThat(JsonPath.of("$.ids[*]").text(hub)).contains("b7");
        assertThat(JsonPath.of("$.name").text(hub)).contains("loft");
        assertThat(JsonPath.of("$.id").text(hub)).isEmpty();
        assertThat(JsonPath.of("$.name.first").text(hub)).isEmpty();
        assertThat(JsonPath.of("$").text(hub)).isEmpty();
    }

    @Test
    void whatIsNoJsonIsRefusedInWords() {
        assertThat(read(HUB, "{\"air\":")).startsWith("it is no JSON: ");
        assertThat(read(HUB, "[".repeat(100_000)))
                .isEqualTo("it is no JSON: Document nesting depth (501) exceeds the maximum allowed (500)");
        assertThat(read(HUB, "{\"air\": NaN}")).isEqualTo("it is no JSON: Non-standard token 'NaN'");
        assertThatThrownBy(() -> new JsonLayout(List.of(TextField.of("t", "air.temp"))))
                .hasMessageContaining("begins with $");
        assertThatThrownBy(() -> JsonPath.of("$.a[b]"))
                .hasMessage("the JSON path '$.a[b]' cannot be read from '[b]' on");
    }

    /**
     * Flags 02 01 06, name "Loft 3", service 0x181a (Environmental Sensing) with -3.5 °C and 62.5 %, data of company
     * 0xffff (for tests) with 2,950 mV.
     */
    private static final byte[] BEACON =
            HexFormat.of().parseHex("020106" + "07094c6f66742033" + "07161a18a2fe6a18" + "05ffffff860b");

    private static final AdvertLayout LOFT = new AdvertLayout(List.of(
            new AdvertLayout.Section(
                    "service:181a",
                    List.of(
                            new Field("temperature", 0, FieldType.I16, "little", null, 0.01, null, null),
                            new Field("humidity", 2, FieldType.U16, "little", null, 0.01, null, null))),
            new AdvertLayout.Section(
                    "company:ffff",
                    List.of(new Field("battery", 0, FieldType.U16, "little", null, 0.001, null, null)))));

    @Test
    void readsAdvertsOfBeacons() {
        assertThat(read(LOFT, BEACON)).isEqualTo("[temperature -3.5, humidity 62.5, battery 2.95]");
        assertThat(LOFT.parts(0, BEACON))
                .contains(new Layout.Part("temperature", 15, 17), new Layout.Part("battery", 23, 25));
        assertThat(org.openpasture.core.advert.Advert.of(BEACON).name()).contains("Loft 3");
    }

    @Test
    void anAdvertOfAnotherKindOrWithAWrongLengthIsRefused() {
        assertThat(read(LOFT, HexFormat.of().parseHex("0201060303aafe")))
                .isEqualTo("the advert has no data of service:181a, company:ffff; it has type 01, type 03");
        assertThat(read(LOFT, HexFormat.of().parseHex("02010609ff")))
                .isEqualTo("it is no advert: the structure at byte 3 has 9 bytes, but only 1 follow");
        assertThat(read(LOFT, HexFormat.of().parseHex("04161a18a2")))
                .contains("the frame has 1 bytes, but 'temperature' is read from byte 0 to 1");
        assertThatThrownBy(() -> new AdvertLayout.Section("apple", List.of())).hasMessageContaining("company:ffff");
    }

    @Test
    void layoutsOfAllKindsAreReadFromJsonAndOnesWithoutFormatAreOfBytes() {
        JsonMapper mapper = JsonMapper.shared();
        for (Layout layout : List.of(
                MAST, HUB, LOFT, new ByteLayout(List.of(new Message(2, List.of(Field.of("a", 0, FieldType.U8))))))) {
            assertThat(mapper.readValue(mapper.writeValueAsString(layout), Layout.class))
                    .isEqualTo(layout);
        }
        assertThat(mapper.readValue("{\"messages\": []}", Layout.class)).isEqualTo(Layout.none());
        assertThat(mapper.readValue("""
        {"format": "line", "separator": ";", "messages": [{"fields": [{"channel": "t", "at": "1", "scale": 0.1}]}]}""", Layout.class))
                .isEqualTo(LineLayout.of(";", new TextField("t", "1", 0.1, null, null, null, null)));
    }

    @Property(tries = 500)
    void anyBytesAreReadOrRefused(@ForAll byte[] noise) {
        for (Layout layout : List.of(MAST, HUB, LOFT)) {
            assertThat(layout.decode(0, noise)).isNotNull();
            assertThat(layout.parts(0, noise))
                    .allSatisfy(part -> assertThat(part.until()).isLessThanOrEqualTo(noise.length));
        }
    }

    /** Eight samples of a sine of amplitude 2 about 5, and one of nothing. */
    @Test
    void aWaveformBecomesItsRmsAndItsPeak() {
        String message = "{\"axial\":[5,6.414213562,7,6.414213562,5,3.585786438,3,3.585786438],\"radial\":[]}";
        JsonLayout layout = new JsonLayout(List.of(
                folded("rms", Fold.RMS),
                folded("peak", Fold.PEAK),
                folded("mean", Fold.MEAN),
                folded("count", Fold.COUNT),
                folded("max", Fold.MAX),
                new TextField("radial", "$.radial[*]", null, null, null, null, Fold.RMS)));
        List<ChannelValue> values =
                ((Decoding.Decoded) layout.decode(0, message.getBytes(StandardCharsets.UTF_8))).values();
        assertThat(values)
                .extracting(ChannelValue::channel)
                .as("no samples are no value")
                .containsExactly("rms", "peak", "mean", "count", "max");
        assertThat(values.get(0).value()).isEqualTo(Math.sqrt(2), within(1e-8));
        assertThat(values.stream().map(ChannelValue::value).skip(1).map(value -> Math.round(value * 1e6) / 1e6))
                .containsExactly(2.0, 5.0, 8.0, 7.0);
    }

    private static TextField folded(String channel, Fold fold) {
        return new TextField(channel, "$.axial[*]", null, null, null, null, fold);
    }
}
