package org.openpasture.core.registry;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceIdentity;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Shown;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import tools.jackson.databind.json.JsonMapper;

class PointValuesTest {
    private static final JsonMapper JSON = JsonMapper.shared();
    private static final DeviceModel CONTACT = JSON.readValue("""
            {"id": "contact", "name": "Contact", "description": "", "intervalSeconds": 60,
             "layout": {"format": "json", "fields": [{"channel": "door", "at": "$.d"}]},
             "channels": [{"name": "door", "title": "Door", "quantity": "switch", "unit": "",
                           "words": {"0": "shut", "1": "open"}}]}""", DeviceModel.class);

    private static Point door(Shown shown) {
        return new Point("p", 1, "Door", "s", Quantity.SWITCH, "", null, null, null, true, null, List.of(), shown);
    }

    private static Registry with(Point point) {
        return Registry.of(List.of(new Site("s", "Creamery", ZoneOffset.UTC, null), CONTACT, point));
    }

    private static Registry fed(Point point) {
        return with(point)
                .with(List.of(
                        new Change.Put(
                                new Device("d", "Contact", "contact", "s", new DeviceIdentity.OfInlet("i", "7"))),
                        new Change.Put(new Assignment("a", "d", "door", "p", Instant.EPOCH, null, null))));
    }

    @Test
    void theModelsWordsHoldForAllOfItsDevices() {
        Point point = door(Shown.USUAL);
        assertThat(PointValues.inWords(fed(point), point, 1)).isEqualTo("open");
        assertThat(PointValues.inWords(fed(point), point, 2)).isEqualTo("2");
        assertThat(PointValues.inWords(with(point), point, 1))
                .as("nothing feeds it")
                .isEqualTo("1");
    }

    @Test
    void thePointsOwnWordsTakeTheirPlace() {
        Point point = door(new Shown(null, Map.of("1.0", "ajar")));
        assertThat(PointValues.inWords(fed(point), point, 1)).isEqualTo("ajar");
        assertThat(PointValues.inWords(fed(point), point, 0))
                .as("not one word of each")
                .isEqualTo("0");
    }

    @Test
    void aDeviceThatFedThePointOnceSaysNothingAnyMore() {
        Point point = door(Shown.USUAL);
        Registry ended = fed(point)
                .with(List.of(new Change.Put(
                        new Assignment("a", "d", "door", "p", Instant.EPOCH, Instant.EPOCH.plusSeconds(9), null))));
        assertThat(PointValues.words(ended, point)).isEmpty();
    }

    @Test
    void decimalsAreTheQuantitysUnlessThePointSaysOtherwise() {
        assertThat(door(Shown.USUAL).decimals()).isZero();
        assertThat(door(new Shown(3, null)).decimals()).isEqualTo(3);
    }

    @Test
    void whatWasKeptBeforeIsShownAsUsual() {
        Point old = JSON.readValue("""
                {"id": "p", "number": 1, "name": "Door", "placeId": "s", "quantity": "switch", "unit": "", "released": true}""", Point.class);
        assertThat(old.shown()).isEqualTo(Shown.USUAL);
        assertThat(JSON.readValue(JSON.writeValueAsString(door(new Shown(1, Map.of("0", "shut")))), Point.class))
                .isEqualTo(door(new Shown(1, Map.of("0", "shut"))));
    }
}
