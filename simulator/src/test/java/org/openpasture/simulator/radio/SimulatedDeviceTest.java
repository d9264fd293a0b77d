package org.openpasture.simulator.radio;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HexFormat;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * The simulated device against frames of an implementation that is neither the service's nor its own, so that what
 * plays with the service proves something.
 */
class SimulatedDeviceTest {
    private static Stream<JsonNode> vectors(String kind) throws IOException {
        Path file = Path.of("../core/src/test/resources/org/openpasture/core/lorawan/vectors.json");
        return JsonMapper.shared().readTree(Files.readString(file)).path(kind).valueStream();
    }

    static Stream<JsonNode> data() throws IOException {
        return vectors("data")
                .filter(one -> one.path("options").asString().isEmpty()
                        && !one.path("adr").asBoolean()
                        && one.path("counter").asLong() < 65_536
                        && one.path("port").asInt() > 0);
    }

    static Stream<JsonNode> joins() throws IOException {
        return vectors("joins");
    }

    static Stream<JsonNode> accepts() throws IOException {
        return vectors("accepts");
    }

    static Stream<JsonNode> acknowledgements() throws IOException {
        return vectors("acknowledgements").filter(one -> one.path("counter").asLong() < 65_536);
    }

    private static byte[] hex(JsonNode node, String field) {
        return HexFormat.of().parseHex(node.path(field).asString());
    }

    private static String text(byte[] bytes) {
        return HexFormat.of().formatHex(bytes);
    }

    private static SimulatedDevice personalised(JsonNode vector) {
        return SimulatedDevice.personalised(
                "00".repeat(8),
                vector.path("devAddr").asString(),
                vector.path("nwkSKey").asString(),
                vector.path("appSKey").asString());
    }

    @ParameterizedTest
    @MethodSource("data")
    void sendsTheSameBytes(JsonNode vector) {
        SimulatedDevice device = personalised(vector);
        for (long skipped = 0; skipped < vector.path("counter").asLong(); skipped++) {
            device.uplink(1, new byte[0], false);
        }
        byte[] frame = device.uplink(
                vector.path("port").asInt(),
                hex(vector, "payload"),
                vector.path("confirmed").asBoolean());
        assertThat(text(frame)).isEqualTo(vector.path("frame").asString());
    }

    @ParameterizedTest
    @MethodSource("joins")
    void asksToJoinWithTheSameBytes(JsonNode vector) {
        SimulatedDevice device = SimulatedDevice.joining(
                vector.path("devEui").asString(),
                vector.path("joinEui").asString(),
                vector.path("appKey").asString(),
                vector.path("nonce").asInt());
        assertThat(text(device.joinRequest())).isEqualTo(vector.path("frame").asString());
    }

    @ParameterizedTest
    @MethodSource("accepts")
    void understandsAJoinAcceptAndSpeaksWithItsKeys(JsonNode vector) {
        SimulatedDevice device = SimulatedDevice.joining(
                "02ab540000000101",
                "00".repeat(8),
                vector.path("appKey").asString(),
                vector.path("devNonce").asInt());
        device.joinRequest();
        assertThat(device.hearJoinAccept(hex(vector, "frame"))).isTrue();
        SimulatedDevice same = personalised(vector);
        assertThat(text(device.uplink(3, new byte[] {1, 2, 3}, false)))
                .isEqualTo(text(same.uplink(3, new byte[] {1, 2, 3}, false)));
    }

    @ParameterizedTest
    @MethodSource("accepts")
    void isNotFooledByAJoinAcceptForAnother(JsonNode vector) {
        SimulatedDevice other = SimulatedDevice.joining("02ab540000000101", "00".repeat(8), "11".repeat(16), 1);
        other.joinRequest();
        assertThat(other.hearJoinAccept(hex(vector, "frame"))).isFalse();
        assertThat(personalised(vector).hearJoinAccept(hex(vector, "frame")))
                .as("one that never joins")
                .isFalse();
    }

    @ParameterizedTest
    @MethodSource("acknowledgements")
    void recognisesItsAcknowledgement(JsonNode vector) {
        assertThat(personalised(vector).hearAcknowledgement(hex(vector, "frame")))
                .hasValue(vector.path("counter").asLong());
        byte[] changed = hex(vector, "frame");
        changed[6] ^= 1;
        assertThat(personalised(vector).hearAcknowledgement(changed)).isEmpty();
    }
}
