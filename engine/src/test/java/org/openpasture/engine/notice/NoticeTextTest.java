package org.openpasture.engine.notice;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.people.DisplayUnits;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.config.EngineSettings;

class NoticeTextTest {
    private static final Registry REGISTRY = Registry.of(List.of(
            new Site("s", "Creamery", ZoneId.of("Europe/London"), null),
            new Asset("pump", "Whey pump", "s", "pump", List.of())));
    private static final Alert ALERT = new Alert(
            "a1",
            "r",
            "Vibration in zone C",
            Severity.WARNING,
            "pump",
            "p",
            Instant.parse("2026-07-01T10:00:00Z"),
            Instant.parse("2026-07-01T10:00:30Z"),
            Instant.parse("2026-07-01T10:00:30Z"),
            6.4,
            "mm/s",
            "zone C (5.1 to 8.5 mm/s) of ISO 10816-7",
            "Whey pump: Axial vibration 6.4 mm/s, zone C (5.1 to 8.5 mm/s)",
            "Look at the coupling.");
    private static final DisplayUnits AS_KEPT = DisplayUnits.asKept("anna");

    private static NoticeText text(String address) {
        return new NoticeText(new EngineSettings(
                Path.of("data"),
                new EngineSettings.Radio("127.0.0.1", 0, 0, null),
                new EngineSettings.Mqtt("127.0.0.1", -1, -1, null),
                "eu868",
                0,
                address == null ? null : URI.create(address)));
    }

    @Test
    void saysWhatWhereTheValueTheLimitSinceWhenAndWhatToDo() {
        assertThat(text("https://pasture.example/").body(REGISTRY, ALERT, "tok-1", AS_KEPT))
                .isEqualTo("""
        Whey pump: Axial vibration 6.4 mm/s, zone C (5.1 to 8.5 mm/s)

        Where:  Creamery > Whey pump
        Value:  6.40 mm/s
        Limit:  zone C (5.1 to 8.5 mm/s) of ISO 10816-7
        Since:  1 Jul 2026 11:00:00 BST
        Raised: 1 Jul 2026 11:00:30 BST
        Rule:   Vibration in zone C (warning)

        What to do:
        Look at the coupling.

        Open the alert: https://pasture.example/alerts/a1
        Acknowledge without signing in: https://pasture.example/acknowledge#tok-1
        """);
    }

    @Test
    void hasNoLinkWhereNobodySaidHowTheInstanceIsReached() {
        assertThat(text(null).body(REGISTRY, ALERT, "", AS_KEPT)).doesNotContain("Open the alert", "Acknowledge");
    }

    @Test
    void theFenceHasARailForEachStepOfSeverity() {
        assertThat(text(null).subject(ALERT)).startsWith("|=| warning: Whey pump");
        assertThat(NoticeText.mark(Severity.NORMAL)).isEqualTo("| |");
        assertThat(NoticeText.mark(Severity.CRITICAL)).isEqualTo("|#|");
    }
}
