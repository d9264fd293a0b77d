package org.openpasture.core.decoding;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.openpasture.core.calibration.Calibration;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Channel;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.fleet.RadioIdentity;
import org.openpasture.core.layout.ChannelValue;
import org.openpasture.core.layout.Layout;
import org.openpasture.core.lorawan.DevAddr;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Registry;

class ReadingBuilderTest {
    private static final Instant NOW = Instant.parse("2026-03-01T08:00:00Z");
    private static final Device DEVICE =
            new Device("d", "Sender", "m", "s", new RadioIdentity.Personalised(new Eui64(1), new DevAddr(2)));
    private static final DeviceModel MODEL = DeviceModel.of(
            "m",
            "Level sender",
            60,
            null,
            Layout.none(),
            List.of(new Channel(
                    "current",
                    "Level",
                    Quantity.LEVEL,
                    "m",
                    null,
                    new Calibration.TwoPoint(4, 0, 20, 8),
                    null,
                    null,
                    null)));

    private static Assignment assignment(
            String id, String point, Instant from, @Nullable Instant until, @Nullable Calibration own) {
        return new Assignment(id, "d", "current", point, from, until, own);
    }

    private static ReadingBuilder.Result build(double raw, Assignment... assignments) {
        List<Entity> entities = new ArrayList<>(List.of(
                new Site("s", "Creamery", ZoneOffset.UTC, null),
                DEVICE,
                MODEL,
                new Point("p1", 1, "Level", "s", Quantity.LEVEL, "m", null, null, null, true),
                new Point("p2", 2, "Other level", "s", Quantity.LEVEL, "m", null, null, null, true)));
        entities.addAll(List.of(assignments));
        return ReadingBuilder.build(
                Registry.of(entities), DEVICE, MODEL, List.of(new ChannelValue("current", raw)), NOW);
    }

    @Test
    void theModelsCalibrationHoldsForAllItsDevices() {
        assertThat(build(12, assignment("a", "p1", NOW, null, null)).readings())
                .containsExactly(new PointReading(1, Reading.good(NOW, 4)));
    }

    @Test
    void oneDeviceCanHaveItsOwn() {
        assertThat(build(12, assignment("a", "p1", NOW, null, new Calibration.Linear(1, -2)))
                        .readings())
                .containsExactly(new PointReading(1, Reading.good(NOW, 10)));
    }

    @Test
    void aChannelFeedsWhatItIsAssignedToAtThatTime() {
        assertThat(build(
                                12,
                                assignment("a", "p1", NOW.minusSeconds(60), NOW, null),
                                assignment("b", "p2", NOW, null, null))
                        .readings())
                .extracting(PointReading::point)
                .containsExactly(2);
        assertThat(build(12, assignment("a", "p1", NOW.plusSeconds(1), null, null))
                        .readings())
                .isEmpty();
    }

    @Test
    void whatCannotBeIsKeptAndMarkedBadAndWhatIsNoNumberIsNotKept() {
        ReadingBuilder.Result outside = build(2, assignment("a", "p1", NOW, null, null));
        assertThat(outside.readings()).containsExactly(new PointReading(1, new Reading(NOW, -1, Quality.BAD)));
        assertThat(outside.remarks())
                .containsExactly("current: -1.00000 m is outside of what level can be, marked bad");
        Calibration loop = new Calibration.CurrentLoop(0, 8, null, null);
        ReadingBuilder.Result broken = build(3.5, assignment("a", "p1", NOW, null, loop));
        assertThat(broken.readings()).containsExactly(new PointReading(1, new Reading(NOW, -0.25, Quality.BAD)));
        assertThat(broken.remarks())
                .containsExactly(
                        "current: 3.50 mA: the wire is broken, or the transmitter says that it has failed, marked bad");
        ReadingBuilder.Result shorted = build(21.5, assignment("a", "p1", NOW, null, loop));
        assertThat(shorted.readings())
                .as("8.75 m can be, and is none: the transmitter has failed")
                .containsExactly(new PointReading(1, new Reading(NOW, 8.75, Quality.BAD)));
        ReadingBuilder.Result none = build(Double.NaN, assignment("a", "p1", NOW, null, null));
        assertThat(none.readings()).isEmpty();
        assertThat(none.remarks()).containsExactly("current is not a number");
    }
}
