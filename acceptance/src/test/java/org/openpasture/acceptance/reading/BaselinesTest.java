package org.openpasture.acceptance.reading;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;
import static org.openpasture.acceptance.Refusals.refused;

import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.Probes;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.alert.AlertAnswer;
import org.openpasture.api.baseline.BaselineView;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.people.Right;

/** What a machine measured while it was known to be good, and being told of a change from it. */
class BaselinesTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static Plant plant;
    private static Probes probes;
    private String point = "";
    private String address = "";

    @BeforeEach
    void aProbeThatMeasuredADay() throws Exception {
        if (plant == null) {
            plant = new Plant(SERVICE.owner());
            probes = Probes.register(SERVICE, plant);
            plant.invite(SERVICE.anonymous(), "looker", Right.LOOK, plant.site);
        }
        address = "p" + System.nanoTime();
        point = probes.bringIn(address, plant.site).assignments().getFirst().pointId();
        StringBuilder body = new StringBuilder("[");
        for (int i = 0; i < 24; i++) {
            Instant at = Instant.now().minusSeconds((30 - i) * 3_600L);
            body.append("{\"a\": \"%s\", \"at\": \"%s\", \"t\": %s, \"rh\": 50},".formatted(address, at, 20 + i % 3));
        }
        body.setLength(body.length() - 1);
        probes.post(body.append(']').toString());
    }

    private static Map<String, Object> over(String point, String name, long fromHoursAgo, long untilHoursAgo) {
        return new HashMap<>(Map.of(
                "pointIds", List.of(point),
                "name", name,
                "from", Instant.now().minusSeconds(fromHoursAgo * 3_600).toString(),
                "until", Instant.now().minusSeconds(untilHoursAgo * 3_600).toString()));
    }

    private BaselineView[] baselines() {
        return SERVICE.owner().get("api/v1/points/" + point + "/baselines", BaselineView[].class);
    }

    @Test
    void oneOfAPastPeriodIsKnownAtOnceAndAnotherTakesItsPlaceAndGivesItBack() {
        ApiClient owner = SERVICE.owner();
        owner.post("api/v1/baselines", over(point, "good", 31, 6));
        owner.post("api/v1/baselines", over(point, "repaired", 20, 6));
        Map<String, Object> bad = over(point, "iced", 31, 20);
        bad.put("good", false);
        owner.post("api/v1/baselines", bad);

        BaselineView[] all = baselines();
        assertThat(all).extracting(BaselineView::name).containsExactly("repaired", "iced", "good");
        assertThat(all).extracting(BaselineView::reference).containsExactly(true, false, false);
        assertThat(all[2].values().count()).isEqualTo(24);
        assertThat(all[2].values().median()).isEqualTo(21);
        assertThat(all[2].values().highest()).isEqualTo(22);
        assertThat(all[2].now().difference()).isEqualTo(1);
        assertThat(all[2].by()).isEqualTo("owner");

        owner.put(
                "api/v1/baselines/" + all[2].id(),
                Map.of("name", "good again", "good", true, "reference", true, "note", "the repair did not last"));
        assertThat(baselines()[0].name()).isEqualTo("good again");
        assertThat(baselines()).filteredOn(BaselineView::reference).hasSize(1);
        owner.delete("api/v1/baselines/" + all[0].id());
        assertThat(baselines()).hasSize(2);
    }

    @Test
    void oneFromNowOnIsKnownWhenItsTimeIsOverAndAChangeFromItIsAnAlert() throws Exception {
        ApiClient owner = SERVICE.owner();
        refused(409, "no baseline to compare with", () -> owner.post("api/v1/rules", changeOf(3)));
        Instant from = Instant.now().minusSeconds(58);
        owner.post(
                "api/v1/baselines",
                Map.of("pointIds", List.of(point), "name", "started", "from", from.toString(), "seconds", 61));
        assertThat(baselines()[0].state()).isEqualTo("recording");
        assertThat(baselines()[0].values()).isNull();
        owner.post("api/v1/rules", changeOf(3));
        StringBuilder body = new StringBuilder("[");
        for (int i = 0; i < 30; i++) {
            body.append("{\"a\": \"%s\", \"at\": \"%s\", \"t\": %s, \"rh\": 50},"
                    .formatted(address, from.plusSeconds(1 + i), 25 + i % 2));
        }
        body.setLength(body.length() - 1);
        probes.post(body.append(']').toString());
        await().until(() -> Instant.now().isAfter(from.plusSeconds(61)));
        // What was measured after its time says that nothing of it is missing.
        probes.post("[{\"a\": \"%s\", \"t\": 25.5, \"rh\": 50}]".formatted(address));
        await().atMost(Duration.ofSeconds(20))
                .untilAsserted(() -> assertThat(baselines()[0].state()).isEqualTo("known"));
        assertThat(baselines()[0].values().count()).isEqualTo(30);
        assertThat(baselines()[0].values().median()).isEqualTo(25.5);

        probes.post("[{\"a\": \"%s\", \"t\": 21, \"rh\": 50}]".formatted(address));
        await().untilAsserted(() -> assertThat(plant.alerts())
                .extracting(AlertAnswer::summary)
                .anyMatch(summary -> summary.contains("Air 21 °C, below 22.5 °C, normal by baseline 'started'")));
    }

    private Map<String, Object> changeOf(double by) {
        return Map.of(
                "name",
                "Changed",
                "target",
                Map.of("kind", "point", "pointId", point),
                "condition",
                Map.of("kind", "off-baseline", "by", by),
                "severity",
                "warning");
    }

    @Test
    void whatMakesNoBaselineIsSaid() {
        ApiClient owner = SERVICE.owner();
        owner.post("api/v1/baselines", over(point, "before it was there", 300, 200));
        assertThat(baselines()[0].state()).isEqualTo("unusable");
        assertThat(baselines()[0].problem()).isEqualTo("The period has no usable readings; at least 10 are needed.");
        refused(400, "1 minute to 366 days", () -> owner.post("api/v1/baselines", over(point, "backwards", 5, 6)));
        refused(
                400,
                "say until when",
                () -> owner.post("api/v1/baselines", Map.of("pointIds", List.of(point), "name", "endless")));
        Map<String, Object> both = over(point, "bad one", 31, 6);
        both.put("good", false);
        both.put("reference", true);
        refused(400, "Only a good condition", () -> owner.post("api/v1/baselines", both));
        owner.post("api/v1/points/" + point + "/release", Map.of());
        ApiClient looker = SERVICE.signIn("looker");
        refused(403, "record baselines here", () -> looker.post("api/v1/baselines", over(point, "mine", 31, 6)));
        assertThat(looker.get("api/v1/points/" + point + "/baselines")).hasSize(1);
    }
}
