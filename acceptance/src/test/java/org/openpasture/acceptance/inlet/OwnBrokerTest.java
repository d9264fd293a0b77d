package org.openpasture.acceptance.inlet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.inlet.InletRequest;
import org.openpasture.api.inlet.InletView;
import org.openpasture.api.inlet.StrangerView;
import org.openpasture.core.inlet.Contents;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.inlet.TopicPattern;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The broker inside, with boards that mosquitto_pub plays. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class OwnBrokerTest {
  @RegisterExtension static final RunningService SERVICE = new RunningService().withBroker();
  private static Plant plant;
  private static InletView inlet;
  private static String token;

  @BeforeAll
  static void register() {
    plant = new Plant(SERVICE.owner());
    String model = SERVICE.owner().post("api/v1/models", JsonMapper.shared().readTree("""
        {"id": "", "name": "Board", "description": "", "intervalSeconds": 60, "batteryChannel": null,
         "layout": {"format": "json", "fields": [{"channel": "t", "at": "$.t"}]},
         "channels": [{"name": "t", "title": "Trough temperature", "quantity": "temperature", "unit": "°C"}]}""")).path("id").asString();
    Contents contents = JsonMapper.shared().readValue("{\"form\": \"json\", \"address\": \"topic:board\"}", Contents.class);
    JsonNode made = SERVICE.owner().post("api/v1/inlets", new InletRequest("Boards", plant.site, new Source.OwnBroker(List.of(new TopicPattern("farm/{board}/state"))), null,
        contents, null));
    token = made.path("token").asString();
    inlet = JsonMapper.shared().treeToValue(made.path("inlet"), InletView.class);
    SERVICE.owner().post("api/v1/devices", DeviceRequest.ofInlet("Trough board", model, plant.pump, inlet.id(), "b7", true));
    await().atMost(20, TimeUnit.SECONDS).untilAsserted(() -> assertThat(now().state()).as(now().reason()).isEqualTo("up"));
  }

  private static InletView now() {
    return SERVICE.owner().get("api/v1/inlets/" + inlet.id(), InletView.class);
  }

  /** What mosquitto_pub says. */
  private static String publish(String password, String topic, String message, String... more) throws Exception {
    List<String> command = new ArrayList<>(List.of("mosquitto_pub", "-h", "127.0.0.1", "-p", Integer.toString(SERVICE.mqttPort()), "-u", "board", "-P", password, "-t", topic,
        "-m", message, "-q", "1", "-V", "mqttv5"));
    command.addAll(Arrays.asList(more));
    Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
    return new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
  }

  @Test
  @Order(1)
  void whatIsPublishedIsOnDiskWhenItIsAcknowledged() throws Exception {
    assertThat(publish(token, "farm/b7/state", "{\"t\": 8.4}")).isEmpty();
    assertThat(plant.point("Trough temperature").latest().value()).isEqualTo(8.4);
    assertThat(now().address()).contains(":" + SERVICE.mqttPort() + ", farm/{board}/state");
  }

  @Test
  @Order(2)
  void whoIsNotKnownIsListedAndWhatIsNotTheirsIsRefused() throws Exception {
    publish(token, "farm/b8/state", "{\"t\": 7}");
    assertThat(SERVICE.owner().get("api/v1/inlets/" + inlet.id() + "/strangers", StrangerView[].class)).extracting(StrangerView::address).containsExactly("b8");
    assertThat(publish(token, "farm/b7/other", "{\"t\": 1}")).containsIgnoringCase("not authori");
    assertThat(publish("wrong", "farm/b7/state", "{\"t\": 1}")).containsIgnoringCase("not authori");
    assertThat(plant.point("Trough temperature").latest().value()).isEqualTo(8.4);
  }

  @Test
  @Order(3)
  void thePasswordIsChangedWithoutAGap() throws Exception {
    String next = SERVICE.owner().post("api/v1/inlets/" + inlet.id() + "/token", Map.of()).path("token").asString();
    assertThat(publish(token, "farm/b7/state", "{\"t\": 8.5}")).isEmpty();
    assertThat(publish(next, "farm/b7/state", "{\"t\": 8.6}")).isEmpty();
    SERVICE.owner().delete("api/v1/inlets/" + inlet.id() + "/token/before");
    assertThat(publish(token, "farm/b7/state", "{\"t\": 1}")).containsIgnoringCase("not authori");
    assertThat(plant.point("Trough temperature").latest().value()).isEqualTo(8.6);
    token = next;
  }

  @Test
  @Order(4)
  void aPausedInletTakesNothing() throws Exception {
    SERVICE.owner().post("api/v1/inlets/" + inlet.id() + "/pause", Map.of());
    assertThat(publish(token, "farm/b7/state", "{\"t\": 1}")).containsIgnoringCase("not authori");
    SERVICE.owner().post("api/v1/inlets/" + inlet.id() + "/resume", Map.of());
    assertThat(publish(token, "farm/b7/state", "{\"t\": 8.7}")).isEmpty();
    assertThat(plant.point("Trough temperature").latest().value()).isEqualTo(8.7);
  }
}
