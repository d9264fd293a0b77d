package org.openpasture.client.output;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

class OutputTest {
    private static JsonNode json(String text) {
        return JsonMapper.shared().readTree(text);
    }

    @Test
    void aTableIsAsWideAsItsContentsWithNumbersToTheRight() {
        TextTable table = new TextTable("Point", "Value", "State");
        table.row("Axial vibration", "2.10 mm/s", "| | normal");
        table.row("Level", "12.40 m", "");
        assertThat(table.text()).isEqualTo("""
        Point                Value  State
        Axial vibration  2.10 mm/s  | | normal
        Level              12.40 m
        """);
    }

    @Test
    void anEmptyTableSaysSoAndAWrongRowIsNoticed() {
        TextTable table = new TextTable("A", "B");
        assertThat(table.isEmpty()).isTrue();
        assertThatThrownBy(() -> table.row("only one")).hasMessage("a row needs 2 cells");
    }

    @ParameterizedTest
    @CsvSource({
        "2026-03-01T11:59:48Z, 12 s ago",
        "2026-03-01T11:55:00Z, 5 min ago",
        "2026-03-01T09:00:00Z, 3 h ago",
        "2026-02-24T12:00:00Z, 5 d ago",
        "2026-03-01T12:00:05Z, 0 s ago"
    })
    void agesAreSaidAsTheConsoleSaysThem(String time, String words) {
        assertThat(Words.age(json("\"" + time + "\""), Instant.parse("2026-03-01T12:00:00Z")))
                .isEqualTo(words);
    }

    @Test
    void whatIsUnknownIsNotZero() {
        assertThat(Words.age(json("null"), Instant.EPOCH)).isEqualTo("never");
        assertThat(Words.number(json("null"), 2)).isEmpty();
        assertThat(Words.number(json("0"), 2)).isEqualTo("0.00");
        assertThat(Words.amount(json("null"), 0, "dBm")).isEmpty();
        assertThat(Words.amount(json("-80.4"), 0, "dBm")).isEqualTo("-80 dBm");
        assertThat(Words.count(1, "frame") + ", " + Words.count(2, "frame")).isEqualTo("1 frame, 2 frames");
        assertThat(Words.clock(json("null"))).isEmpty();
        assertThat(Words.moment(json("null"))).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({"normal, '| | normal'", "advisory, '|-| advisory'", "warning, '|=| warning'", "critical, '|#| critical'"
    })
    void theFenceIsDrawnInLetters(String severity, String mark) {
        assertThat(Words.severity(JsonMapper.shared().valueToTree(severity))).isEqualTo(mark);
    }
}
