package org.openpasture.acceptance.reading;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openpasture.acceptance.Refusals.refused;

import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.Probes;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.fleet.AssignmentRequest;
import org.openpasture.api.fleet.CalibrationView;
import org.openpasture.api.fleet.DeviceView;
import org.openpasture.core.calibration.Calibration;
import tools.jackson.databind.JsonNode;

/** A sensor is calibrated while it runs: what was measured before keeps the calibration of its time. */
class CalibrationsTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    @Test
    void eachStretchOfTimeKeepsItsCalibrationAlsoWhenFramesAreReadAgain() throws Exception {
        Plant plant = new Plant(SERVICE.owner());
        Probes probes = Probes.register(SERVICE, plant);
        DeviceView device = probes.bringIn("p1", plant.site);
        String point = device.assignments().getFirst().pointId();
        probes.post("[{\"a\": \"p1\", \"t\": 20, \"rh\": 50}]");
        assertThat(values(point)).containsExactly(20.0);

        Instant calibrated = Instant.now();
        assign(
                device,
                new AssignmentRequest(
                        "air", point, new Calibration.Linear(2, 0), calibrated, "against the reference thermometer"));
        probes.post("[{\"a\": \"p1\", \"t\": 21, \"rh\": 50}]");
        assertThat(values(point)).containsExactly(20.0, 42.0);
        CalibrationView[] history =
                SERVICE.owner().get("api/v1/points/" + point + "/calibrations", CalibrationView[].class);
        assertThat(history).hasSize(2);
        assertThat(history[0].own()).isTrue();
        assertThat(history[0].calibration()).isEqualTo(new Calibration.Linear(2, 0));
        assertThat(history[0].by()).isEqualTo("owner");
        assertThat(history[0].note()).isEqualTo("against the reference thermometer");
        assertThat(history[0].from()).isEqualTo(calibrated);
        assertThat(history[0].until()).isNull();
        assertThat(history[1].own()).isFalse();
        assertThat(history[1].from()).as("since the device exists").isNull();
        assertThat(history[1].until()).isEqualTo(calibrated);
        assertThat(changedByDecodingAgain(device)).isZero();

        // Put right for its own stretch only.
        assign(device, new AssignmentRequest("air", point, new Calibration.Linear(3, 0), null, "a slip of the pen"));
        assertThat(SERVICE.owner().get("api/v1/points/" + point + "/calibrations", CalibrationView[].class))
                .hasSize(2);
        assertThat(changedByDecodingAgain(device)).isEqualTo(1);
        assertThat(values(point)).containsExactly(20.0, 63.0);

        refused(
                400,
                "cannot begin in the future",
                () -> assign(
                        device,
                        new AssignmentRequest("air", point, null, Instant.now().plusSeconds(3_600), null)));
        refused(
                409,
                "which is not before",
                () -> assign(device, new AssignmentRequest("air", point, null, calibrated.minusSeconds(60), null)));
        refused(400, "has no channel 'soil'", () -> assign(device, new AssignmentRequest("soil", point, null)));
    }

    private static void assign(DeviceView device, AssignmentRequest request) {
        SERVICE.owner().post("api/v1/devices/" + device.id() + "/assignments", request);
    }

    private static List<Double> values(String point) {
        JsonNode series = SERVICE.owner().get("api/v1/points/" + point + "/readings");
        return Arrays.stream(series.path("values")
                        .valueStream()
                        .mapToDouble(JsonNode::asDouble)
                        .toArray())
                .boxed()
                .toList();
    }

    private static long changedByDecodingAgain(DeviceView device) {
        return SERVICE.owner()
                .post(
                        "api/v1/devices/" + device.id() + "/decode-again",
                        Map.of(
                                "from", Instant.now().minusSeconds(3_600).toString(),
                                "until", Instant.now().plusSeconds(60).toString(),
                                "note", "calibrated"))
                .path("changed")
                .asLong();
    }
}
