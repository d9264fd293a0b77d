package org.openpasture.engine.outlet;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.judging.Effect;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.outlet.Destination;
import org.openpasture.core.outlet.Outlet;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Registry;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

class PassingTextTest {
    private static final Instant AT = Instant.parse("2026-11-25T12:00:00.250Z");
    private static final Point AXIAL = new Point(
            "p", 4, "Axial, drive end", "pump", Quantity.VIBRATION_VELOCITY, "mm/s", null, "axial", null, true);
    private static final Registry REGISTRY = Registry.of(List.of(
            new Site("s", "Upper Quern Farm", ZoneOffset.UTC, null),
            new Asset("pump", "Whey pump", "s", "pump", List.of()),
            AXIAL));
    private static final Alert ALERT = new Alert(
            "r-1",
            "r",
            "Zone D",
            Severity.CRITICAL,
            "pump",
            "p",
            AT,
            AT,
            AT,
            8.7,
            "mm/s",
            "zone D",
            "Whey pump: Axial 8.7 mm/s, zone D",
            "");

    private static JsonNode json(String text) {
        return JsonMapper.shared().readTree(text);
    }

    @Test
    void readingsHaveNamesUnitsAndQuality() {
        JsonNode one = json(PassingText.readings(
                        REGISTRY,
                        Outlet.Form.JSON,
                        List.of(new PassingText.Of(AXIAL, new Reading(AT, 4.5, Quality.BAD)))))
                .path(0);
        assertThat(one).isEqualTo(json("""
        {"pointId": "p", "point": "Axial, drive end", "place": "Upper Quern Farm / Whey pump", "time": "2026-11-25T12:00:00.250Z", "value": 4.5, "unit": "mm/s",
         "quality": "bad"}"""));
    }

    @Test
    void senmlHasUnitsOfItsRegistryAndNoBadReadings() {
        JsonNode pack = json(PassingText.readings(
                REGISTRY,
                Outlet.Form.SENML,
                List.of(
                        new PassingText.Of(AXIAL, Reading.good(AT, 4.5)),
                        new PassingText.Of(AXIAL, new Reading(AT, 9, Quality.BAD)))));
        assertThat(pack)
                .isEqualTo(json("[{\"n\": \"point-4\", \"t\": 1795608000.250, \"u\": \"m/s\", \"v\": 0.0045}]"));
    }

    @Test
    void whatFollowsOneAnotherGoesTogether() {
        assertThat(PassingText.together(List.of("[{\"a\":1}]", "[]", "[{\"a\":2},{\"a\":3}]")))
                .isEqualTo("[{\"a\":1},{\"a\":2},{\"a\":3}]");
    }

    @Test
    void eachStepOfAnAlertIsToldAndItsWaitingIsNot() {
        JsonNode raised = json(
                PassingText.alert(REGISTRY, ALERT, new Effect.Raised(ALERT)).orElseThrow());
        assertThat(List.of(
                        raised.path("state").asString(),
                        raised.path("severity").asString(),
                        raised.path("place").asString(),
                        raised.path("value").asString()))
                .containsExactly("raised", "critical", "Upper Quern Farm / Whey pump", "8.7");
        JsonNode acknowledged =
                json(PassingText.alert(REGISTRY, ALERT, new Effect.Acknowledged("r-1", AT, "technician", "tightened"))
                        .orElseThrow());
        assertThat(acknowledged.path("person").asString() + ", "
                        + acknowledged.path("note").asString())
                .isEqualTo("technician, tightened");
        JsonNode returned = json(PassingText.alert(REGISTRY, ALERT, new Effect.Returned("r-1", AT, 2.0))
                .orElseThrow());
        assertThat(returned.path("state").asString() + " "
                        + returned.path("value").asDouble())
                .isEqualTo("returned 2.0");
        assertThat(PassingText.alert(REGISTRY, ALERT, new Effect.Settled("r"))).isEmpty();
    }

    @Test
    void aTopicIsMadeOfPlaceAndName() {
        assertThat(PassingText.topicOf(REGISTRY, AXIAL)).isEqualTo("upper-quern-farm/whey-pump/axial-drive-end");
    }

    /** Whoever may look at one outlet's site must not get what another publishes by a wider filter. */
    @ParameterizedTest
    @CsvSource({
        "harrow/{point}, harrow/#, true",
        "harrow/{point}, harrow/+/pump/#, true",
        "harrow/{point}, #, false",
        "harrow/{point}, +/x, false",
        "harrow/{point}, harrowfell/x, false",
        "harrow/all, harrow/all, true",
        "harrow/all, harrow/#, false",
        "{point}, #, false"
    })
    void peopleSubscribeToNothingButTheOutletsTopic(String topic, String filter, boolean covered) {
        assertThat(Destination.covers(topic, filter)).isEqualTo(covered);
    }
}
