package org.openpasture.acceptance.reading;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.openpasture.acceptance.Refusals.refused;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.Probes;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.fleet.DeviceView;
import org.openpasture.api.health.DataHealthView;
import org.openpasture.core.health.Finding;
import org.openpasture.core.people.Right;

/** A probe that stopped moving and another that was away for a night are listed, and what is well comes after them. */
class DataHealthTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static String reading(String probe, Instant at, double air) {
        return "{\"a\": \"%s\", \"at\": \"%s\", \"t\": %s, \"rh\": %s}".formatted(probe, at, air, 50 + Math.sin(air));
    }

    @Test
    void whatIsWrongWithReadingsIsListedWorstFirst() throws Exception {
        Plant plant = new Plant(SERVICE.owner());
        Probes probes = Probes.register(SERVICE, plant);
        DeviceView well = probes.bringIn("well", plant.site);
        DeviceView stuck = probes.bringIn("stuck", plant.site);
        DeviceView away = probes.bringIn("away", plant.site);
        Instant now = Instant.now();
        for (int i = 0; i < 144; i++) {
            Instant at = now.minus(Duration.ofMinutes(10L * (143 - i)));
            double air = 12 + Math.sin(i / 9.0);
            List<String> all = new java.util.ArrayList<>(
                    List.of(reading("well", at, air), reading("stuck", at, i >= 60 && i < 100 ? 12.5 : air)));
            if (i < 30 || i >= 66) {
                all.add(reading("away", at, air));
            }
            probes.post("[" + String.join(",", all) + "]");
        }
        DataHealthView[] found = SERVICE.owner().get("api/v1/data-health?days=1&all=false", DataHealthView[].class);
        assertThat(found)
                .extracting(DataHealthView::deviceName)
                .containsExactly("Probe away", "Probe away", "Probe stuck", "Probe stuck");
        assertThat(found[0].findings()).singleElement().satisfies(gap -> {
            assertThat(gap.kind()).isEqualTo(Finding.Kind.GAP);
            assertThat(gap.longestSeconds()).isCloseTo(37 * 600L, within(60L));
        });
        assertThat(found[0].coveredPercent()).isCloseTo(75, within(1.0));
        assertThat(found[2].findings()).singleElement().satisfies(one -> assertThat(one.kind())
                .isEqualTo(Finding.Kind.STUCK));

        assertThat(SERVICE.owner().get("api/v1/data-health?days=1&device=" + well.id(), DataHealthView[].class))
                .hasSize(2)
                .allMatch(view -> view.findings().isEmpty());
        plant.invite(SERVICE.anonymous(), "looker", Right.LOOK, plant.site);
        assertThat(SERVICE.signIn("looker").get("api/v1/data-health", DataHealthView[].class))
                .as("what is not released is for editors")
                .isEmpty();
        refused(400, "days are 1 to 92", () -> SERVICE.owner().get("api/v1/data-health?days=93"));
        assertThat(stuck.id()).isNotEqualTo(away.id());
    }
}
