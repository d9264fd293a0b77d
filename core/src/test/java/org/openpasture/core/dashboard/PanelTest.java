package org.openpasture.core.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.openpasture.core.formula.Statistic;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.rule.PointSelection;
import org.openpasture.core.vibration.SpectrumKind;
import tools.jackson.databind.json.JsonMapper;

/** How panels are written: the kind, what all have and what the kind has stand on one level. */
class PanelTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    @Test
    void aPanelAsItWasWrittenBeforeThereWereManyKindsIsRead() {
        Panel panel = JSON.readValue("""
                {"id": "a", "kind": "line", "title": "Vibration", "pointIds": ["p1", "p2"], "assetId": null,
                 "range": "P7D", "text": null, "x": 0, "y": 3, "w": 9, "h": 4}
                """, Panel.class);
        assertThat(panel)
                .isEqualTo(new Panel.Line(
                        new Frame("a", "Vibration", List.of("p1", "p2"), null, "P7D", null, 0, 3, 9, 4),
                        Panel.Scale.FIXED));
    }

    @Test
    void whatIsWrittenIsReadBack() {
        Frame frame = new Frame(
                "a",
                "Doors",
                List.of(),
                new PointSelection("farm", Quantity.SWITCH, null, "winter watch"),
                null,
                new Look(0, 0.0, 1.0, Map.of("0", "shut", "1", "open")),
                0,
                0,
                12,
                3);
        for (Panel panel : List.of(
                new Panel.Value(frame, Statistic.MEAN),
                new Panel.Vessel(frame, Panel.Shape.CONE),
                new Panel.States(frame),
                new Panel.Bars(frame, Panel.Order.NAME),
                new Panel.Exposure(frame, 15),
                new Panel.Spectrum(frame, Panel.Form.WATERFALL, SpectrumKind.ENVELOPE, 300.0),
                new Panel.Picture(frame, Panel.Drawing.DOOR, 0.5))) {
            String written = JSON.writerFor(Panel.class).writeValueAsString(panel);
            assertThat(written).contains("\"kind\":").contains("\"tag\":\"winter watch\"");
            assertThat(JSON.readValue(written, Panel.class)).isEqualTo(panel);
        }
    }

    @Test
    void anUnknownKindIsRefused() {
        assertThatThrownBy(() -> JSON.readValue("{\"id\": \"a\", \"kind\": \"hologram\"}", Panel.class))
                .hasMessageContaining("hologram");
    }
}
