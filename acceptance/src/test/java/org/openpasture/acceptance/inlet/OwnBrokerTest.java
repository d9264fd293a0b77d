package org.openpasture.acceptance.inlet;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.inlet.StrangerView;

/** The broker inside, with boards that mosquitto_pub plays. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class OwnBrokerTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService().withBroker();

    private static Plant plant;
    private static Boards boards;
    private static String token;

    @BeforeAll
    static void register() {
        plant = new Plant(SERVICE.owner());
        boards = Boards.register(SERVICE, plant);
        token = boards.token();
    }

    /** What mosquitto_pub says. */
    private static String publish(String password, String topic, String message, String... more) throws Exception {
        List<String> command = new ArrayList<>(List.of(
                "mosquitto_pub",
                "-h",
                "127.0.0.1",
                "-p",
                Integer.toString(SERVICE.mqttPort()),
                "-u",
                "board",
                "-P",
                password,
                "-t",
                topic,
                "-m",
                message,
                "-q",
                "1",
                "-V",
                "mqttv5"));
        command.addAll(Arrays.asList(more));
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        return new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    }

    @Test
    @Order(1)
    void whatIsPublishedIsOnDiskWhenItIsAcknowledged() throws Exception {
        assertThat(publish(token, "farm/b7/state", "{\"t\": 8.4}")).isEmpty();
        assertThat(plant.point("Trough temperature").latest().value()).isEqualTo(8.4);
        assertThat(boards.inlet().address()).contains(":" + SERVICE.mqttPort() + ", farm/{board}/state");
    }

    @Test
    @Order(2)
    void whoIsNotKnownIsListedAndWhatIsNotTheirsIsRefused() throws Exception {
        publish(token, "farm/b8/state", "{\"t\": 7}");
        assertThat(SERVICE.owner().get("api/v1/inlets/" + boards.inletId() + "/strangers", StrangerView[].class))
                .extracting(StrangerView::address)
                .containsExactly("b8");
        assertThat(publish(token, "farm/b7/other", "{\"t\": 1}")).containsIgnoringCase("not authori");
        assertThat(publish("wrong", "farm/b7/state", "{\"t\": 1}")).containsIgnoringCase("not authori");
        assertThat(plant.point("Trough temperature").latest().value()).isEqualTo(8.4);
    }

    @Test
    @Order(3)
    void thePasswordIsChangedWithoutAGap() throws Exception {
        String next = SERVICE.owner()
                .post("api/v1/inlets/" + boards.inletId() + "/token", Map.of())
                .path("token")
                .asString();
        assertThat(publish(token, "farm/b7/state", "{\"t\": 8.5}")).isEmpty();
        assertThat(publish(next, "farm/b7/state", "{\"t\": 8.6}")).isEmpty();
        SERVICE.owner().delete("api/v1/inlets/" + boards.inletId() + "/token/before");
        assertThat(publish(token, "farm/b7/state", "{\"t\": 1}")).containsIgnoringCase("not authori");
        assertThat(plant.point("Trough temperature").latest().value()).isEqualTo(8.6);
        token = next;
    }

    @Test
    @Order(4)
    void aPausedInletTakesNothing() throws Exception {
        SERVICE.owner().post("api/v1/inlets/" + boards.inletId() + "/pause", Map.of());
        assertThat(publish(token, "farm/b7/state", "{\"t\": 1}")).containsIgnoringCase("not authori");
        SERVICE.owner().post("api/v1/inlets/" + boards.inletId() + "/resume", Map.of());
        assertThat(publish(token, "farm/b7/state", "{\"t\": 8.7}")).isEmpty();
        assertThat(plant.point("Trough temperature").latest().value()).isEqualTo(8.7);
    }
}
