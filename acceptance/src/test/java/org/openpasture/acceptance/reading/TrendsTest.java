package org.openpasture.acceptance.reading;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.openpasture.acceptance.Refusals.refused;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Map;
import java.util.function.DoubleUnaryOperator;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.alert.LimitTrialView;
import org.openpasture.api.place.PointRequest;
import org.openpasture.api.place.PointView;
import org.openpasture.api.reading.ConsumptionView;
import org.openpasture.api.reading.TrendView;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.quantity.Quantity;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Which way points go, and when they get there. The pump's zones end at 3.2, 5.1 and 8.5 mm/s. */
class TrendsTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static Plant plant;

    @BeforeAll
    static void register() {
        plant = new Plant(SERVICE.owner());
    }

    /** A point with a reading every hour of the last days. */
    private static PointView point(String name, Quantity quantity, int days, DoubleUnaryOperator valueOfDay) {
        PointView made = SERVICE.owner()
                .post(
                        "api/v1/points",
                        new PointRequest(name, plant.pump, quantity, null, null, null, null, true, null, null),
                        PointView.class);
        StringBuilder csv = new StringBuilder("time,point,value\n");
        Instant now = Instant.now().truncatedTo(ChronoUnit.SECONDS);
        for (int hour = days * 24; hour >= 1; hour--) {
            double value = valueOfDay.applyAsDouble(-hour / 24.0) + 0.05 * Math.sin(hour);
            csv.append(now.minus(hour, ChronoUnit.HOURS))
                    .append(',')
                    .append(made.number())
                    .append(',')
                    .append(value)
                    .append('\n');
        }
        SERVICE.owner()
                .postCsv(
                        "api/v1/readings/import",
                        new ByteArrayInputStream(csv.toString().getBytes(StandardCharsets.UTF_8)));
        return made;
    }

    private static TrendView trend(PointView point, int days) {
        return SERVICE.owner().get("api/v1/points/" + point.id() + "/trend?days=" + days, TrendView.class);
    }

    @Test
    void saysWhenTheNextZoneIsReached() {
        PointView rising = point("Rising", Quantity.VIBRATION_VELOCITY, 30, day -> 4.2 + 0.1 * day);
        TrendView trend = trend(rising, 30);
        assertThat(trend.clear()).as(trend.reason()).isTrue();
        assertThat(trend.perDay()).isCloseTo(0.1, within(0.005));
        assertThat(trend.zone()).isEqualTo("C");
        assertThat(trend.boundary()).isEqualTo(5.1);
        assertThat(Duration.between(Instant.now(), trend.reachedAt()).toHours() / 24.0)
                .isCloseTo(9, within(1.0));
        assertThat(trend.earliest()).isBeforeOrEqualTo(trend.reachedAt());
        assertThat(trend.latest()).isAfterOrEqualTo(trend.reachedAt());
        assertThat(trend(rising, 7).clear()).as("a week in quarters of days").isTrue();
    }

    @Test
    void aTankRunsEmpty() {
        TrendView trend = trend(point("Fill", Quantity.FILL, 20, day -> 30 - 1.5 * day), 14);
        assertThat(trend.zone()).isEqualTo("empty");
        assertThat(Duration.between(Instant.now(), trend.reachedAt()).toHours() / 24.0)
                .isCloseTo(20, within(1.5));
    }

    @Test
    void whereTheFitDoesNotCarryItSaysSo() {
        assertThat(trend(point("Flat", Quantity.VIBRATION_VELOCITY, 30, day -> 2), 30)
                        .reason())
                .contains("no clear trend");
        PointView fresh = point("Fresh", Quantity.VIBRATION_VELOCITY, 3, day -> 2 + day);
        assertThat(trend(fresh, 30).reason()).contains("too few readings");
        assertThat(trend(fresh, 30).reachedAt()).isNull();
        PointView far = point("Slow", Quantity.VIBRATION_VELOCITY, 30, day -> 1 + 0.01 * day);
        assertThat(trend(far, 30).clear()).isTrue();
        assertThat(trend(far, 30).reachedAt())
                .as("two hundred days ahead, from thirty")
                .isNull();
        refused(400, "'days' must be 2 to 366", () -> trend(fresh, 1));
    }

    /** 3.2 to 6.2 over 30 days: C begins at 5.1 after 19 days, with the stricter set at 4.2 after ten. */
    @Test
    void aLimitSetIsTriedOnWhatWasMeasured() {
        PointView rising = point("Tried", Quantity.VIBRATION_VELOCITY, 30, day -> 6.2 + 0.1 * day);
        ApiClient owner = SERVICE.owner();
        JsonNode set = owner.get("api/v1/limits/" + Plant.PUMP_LIMITS);
        LimitTrialView as =
                owner.post("api/v1/limits/trial", Map.of("limitSet", set, "days", 40), LimitTrialView.class);
        LimitTrialView.TriedPoint now = tried(as, rising);
        assertThat(now.zoneNow()).isEqualTo("C").isEqualTo(now.zoneThen());
        assertThat(now.secondsInZone().get("C") / 86_400.0).isCloseTo(11, within(1.0));

        ObjectNode stricter = ((ObjectNode) set).deepCopy();
        ((ObjectNode) stricter.path("zones").path(1)).put("to", 4.2);
        ((ObjectNode) stricter.path("zones").path(2)).put("from", 4.2).put("to", 6.0);
        ((ObjectNode) stricter.path("zones").path(3)).put("from", 6.0);
        LimitTrialView.TriedPoint then = tried(
                owner.post(
                        "api/v1/limits/trial",
                        Map.of("limitSet", stricter, "placeId", plant.site, "days", 40),
                        LimitTrialView.class),
                rising);
        assertThat(then.zoneNow()).isEqualTo("C");
        assertThat(then.zoneThen()).isEqualTo("D");
        assertThat(then.secondsInZone().get("C") / 86_400.0).isCloseTo(18, within(1.0));
        assertThat(then.crossings()).isPositive();
        assertThat(owner.get("api/v1/points/" + rising.id(), PointView.class)
                        .latest()
                        .zone())
                .as("nothing was saved")
                .isEqualTo("C");
        refused(
                400,
                "days",
                () -> owner.post("api/v1/limits/trial", Map.of("limitSet", set, "days", 0), JsonNode.class));
        refused(
                404,
                "place",
                () -> owner.post("api/v1/limits/trial", Map.of("limitSet", set, "placeId", "nowhere"), JsonNode.class));
    }

    private static LimitTrialView.TriedPoint tried(LimitTrialView trial, PointView point) {
        return trial.points().stream()
                .filter(one -> one.pointId().equals(point.id()))
                .findFirst()
                .orElseThrow();
    }

    /** A bin that gives 0.8 m³ a day and is filled up by 6 m³ on two days. */
    @Test
    void whatIsUsedOutOfABinIsSaidForEachDay() {
        PointView bin = point(
                "Bin",
                Quantity.VOLUME,
                20,
                day -> 10 - 0.8 * (day + 20) + (day > -14.5 ? 6 : 0) + (day > -5.5 ? 6 : 0));
        ConsumptionView found =
                SERVICE.owner().get("api/v1/points/" + bin.id() + "/consumption?days=18", ConsumptionView.class);
        assertThat(found.fillings()).hasSize(2).allSatisfy(one -> assertThat(one.amount())
                .isCloseTo(6, within(0.3)));
        assertThat(found.perDay()).isCloseTo(0.8, within(0.05));
        assertThat(found.lastsDays()).isCloseTo((10 - 16 + 12) / 0.8, within(1.0));
        assertThat(found.periods()).hasSize(19);
        assertThat(found.unit()).isEqualTo("m³");
        assertThat(SERVICE.owner()
                        .get("api/v1/points/" + bin.id() + "/consumption?days=18&step=7", ConsumptionView.class)
                        .fillings())
                .as("less than what counts")
                .isEmpty();
        refused(400, "days", () -> SERVICE.owner().get("api/v1/points/" + bin.id() + "/consumption?days=0"));
        refused(400, "step", () -> SERVICE.owner().get("api/v1/points/" + bin.id() + "/consumption?step=0"));
    }
}
