package org.openpasture.core.pack;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.lang.reflect.ParameterizedType;
import java.lang.reflect.RecordComponent;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.openpasture.core.dashboard.Panel;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;
import org.openpasture.core.yaml.YamlFile;

class PackFileTest {
    static final String COLD = """
            openPasturePack: 1
            id: cold-rooms
            name: Cold rooms
            places:
              - key: store
                name: Cold store
                kind: asset
                assetKind: cold room
            points:
              - key: store-air
                name: Air temperature
                place: store
                quantity: temperature
            rules:
              - key: too-warm
                name: Too warm
                target: {kind: point, pointId: store-air}
                condition: {kind: above, limit: 8}
                severity: warning
            dashboards:
              - key: cold-chain
                name: Cold chain
                panels:
                  - {kind: line, title: Air, pointIds: [store-air], x: 0, y: 0, w: 12, h: 4}
            """;

    @Test
    void readsWhatAPersonWrites() {
        Pack pack = PackFile.read(COLD);
        Rule rule = pack.rules().getFirst();
        assertThat(rule.id()).isEqualTo("too-warm");
        assertThat(rule.target()).isEqualTo(new Target.OfPoint("store-air"));
        assertThat(rule.condition()).isEqualTo(new Condition.Above(8));
        assertThat(rule.enabled()).as("what is left out is as usual").isTrue();
        assertThat(rule.hold()).isEqualTo(new Hold.ForTime(0));
        assertThat(rule.recipients()).isEmpty();
        assertThat(pack.points().getFirst().quantity()).isEqualTo(Quantity.TEMPERATURE);
        Panel panel = pack.dashboards().getFirst().panels().getFirst();
        assertThat(panel).isInstanceOf(Panel.Line.class);
        assertThat(panel.frame().id()).as("panels need no ids").isNotBlank();
    }

    @Test
    void writesWhatItReadsAgain() {
        Pack pack = PackFile.read(COLD);
        String text = PackFile.write(pack);
        assertThat(PackFile.read(text)).isEqualTo(pack);
        assertThat(text)
                .startsWith("openPasturePack: 1\n")
                .contains("- key: too-warm\n")
                .doesNotContain("recipients", "deadBand", "null", "enabled");
    }

    @Property(tries = 200)
    void anyTextOfPeopleComesBackAsItWas(@ForAll("texts") String about) {
        Pack pack = new Pack(1, "p", "Pack", about, List.of(), List.of(), List.of(), List.of(), List.of(), List.of());
        assertThat(PackFile.read(PackFile.write(pack)).about()).isEqualTo(about);
    }

    @Provide
    Arbitrary<String> texts() {
        return Arbitraries.of(
                        "8.0",
                        "no",
                        "null",
                        "~",
                        "- a",
                        "a: b",
                        "# x",
                        "1e5",
                        "0x1F",
                        "é°µ",
                        "'",
                        "\"",
                        "|",
                        "> y",
                        "two\nlines",
                        "ends here ",
                        " begins",
                        "{}",
                        "[",
                        "&a",
                        "*a",
                        "!tag",
                        "%",
                        "@",
                        "`",
                        "12:30",
                        "2026-11-29",
                        "\ttab",
                        "line\n\n",
                        ".inf",
                        "0o17",
                        "true")
                .list()
                .ofMinSize(1)
                .ofMaxSize(4)
                .map(parts -> String.join(" ", parts));
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '`', textBlock = """
            name: x                               | it does not begin with 'openPasturePack: 1'
            [1, 2]                                | it does not begin with 'openPasturePack: 1'
            openPasturePack: 2                    | newer version
            openPasturePack: 1                    | the pack needs a key
            {openPasturePack: 1, id: a, name: b, colour: red} | there is no field 'colour' there
            {openPasturePack: 1, id: a, name: b, rules: 5}    | 'rules' is a list
            {openPasturePack: 1, id: a, name: b, rules: [7]}  | Entry 1 of 'rules' has no fields
            {openPasturePack: 1, openPasturePack: 1}          | uplicate
            {openPasturePack: 1, id: &x a, name: *x}          | anchor or alias
            {openPasturePack: 1, id: a, name: "b\\u202Ec"}    | cannot be shown
            {openPasturePack: 1                               | not readable as YAML
            """)
    void saysWhatIsWrong(String text, String words) {
        assertThatThrownBy(() -> PackFile.read(text))
                .isInstanceOf(YamlFile.Unreadable.class)
                .hasMessageContaining(words);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            limit: 8               | limit: 1e300            | beyond all reason
            kind: above            | kind: hotter            | there is no kind 'hotter'
            place: store           | place: cellar           | not among the pack's places
            quantity: temperature  | quantity: warmth        | warmth
            severity: warning      | severity: warning, id: x| neither 'id' nor 'siteId'
            limit: 8               | limitt: 8               | 'limit': a value is missing
            name: Too warm         | name: Too warm, colour: red | there is no field 'colour'
            kind: asset            | kind: room              | a site, an area or an asset
            """)
    void saysWhichPartIsWrong(String before, String after, String words) {
        String text = COLD.replace(before, after.contains(", ") ? after.replace(", ", "\n    ") : after);
        assertThatThrownBy(() -> PackFile.read(text))
                .isInstanceOf(YamlFile.Unreadable.class)
                .hasMessageContaining(words);
    }

    @Test
    void aFileThatWouldGrowIsNotRead() {
        StringBuilder bomb = new StringBuilder("openPasturePack: 1\na: &a [x, x, x, x]\n");
        for (char c = 'b'; c < 'k'; c++) {
            bomb.append(c).append(": &").append(c).append(" [");
            bomb.append(("*" + (char) (c - 1) + ", ").repeat(9)).append("]\n");
        }
        assertThatThrownBy(() -> PackFile.read(bomb.toString())).hasMessageContaining("anchor or alias");
        assertThatThrownBy(() -> PackFile.read("[".repeat(100_000))).isInstanceOf(YamlFile.Unreadable.class);
        assertThatThrownBy(() -> PackFile.read("x".repeat(YamlFile.LONGEST + 1)))
                .isInstanceOf(YamlFile.Unreadable.class);
    }

    @Test
    void everyFieldThatNamesAPlaceOrAPointIsKnown() {
        Set<String> found = new HashSet<>();
        names(Rule.class, found, new HashSet<>());
        names(Panel.class, found, new HashSet<>());
        // Panels of cameras are left out of packs.
        found.removeAll(Set.of("id", "cameraId"));
        Set<String> known = new HashSet<>(References.PLACE_FIELDS);
        known.addAll(References.POINT_FIELDS);
        known.addAll(References.POINT_LISTS);
        assertThat(found).isEqualTo(known);
    }

    /** The names of all fields of a record, and of what stands in it, that end like an id. */
    private static void names(Class<?> type, Set<String> found, Set<Class<?>> seen) {
        if (!seen.add(type)) {
            return;
        }
        if (type.isSealed()) {
            Stream.of(type.getPermittedSubclasses()).forEach(one -> names(one, found, seen));
        }
        if (type.isRecord()) {
            for (RecordComponent part : type.getRecordComponents()) {
                if (part.getName().endsWith("Id") || part.getName().endsWith("Ids")) {
                    found.add(part.getName());
                }
                names(part.getType(), found, seen);
                if (part.getGenericType() instanceof ParameterizedType of) {
                    Stream.of(of.getActualTypeArguments())
                            .filter(Class.class::isInstance)
                            .forEach(one -> names((Class<?>) one, found, seen));
                }
            }
        }
    }
}
