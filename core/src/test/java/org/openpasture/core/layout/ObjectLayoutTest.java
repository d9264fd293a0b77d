package org.openpasture.core.layout;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.openpasture.core.bacnet.Controller;
import org.openpasture.core.bacnet.Datum;
import org.openpasture.core.bacnet.ObjectId;
import org.openpasture.core.bacnet.WriteProperty;
import org.openpasture.core.fleet.Channel;
import org.openpasture.core.fleet.Proposal;
import org.openpasture.core.quantity.Quantity;
import tools.jackson.databind.json.JsonMapper;

class ObjectLayoutTest {
    private static final ObjectLayout BARN = (ObjectLayout) JsonMapper.shared().readValue("""
      {"format": "objects", "fields": [
        {"channel": "level", "object": "analog-input:1", "scale": 0.001},
        {"channel": "humidity", "object": "analog-input:2", "every": 60},
        {"channel": "fan", "object": "analog-output:1", "scale": 100, "write": true, "priority": 10},
        {"channel": "stage", "object": "multi-state-value:3", "every": 60, "write": true}]}""", Layout.class);

    private static byte[] image(String json) {
        return json.getBytes(StandardCharsets.UTF_8);
    }

    @Test
    void presentValuesBecomeChannels() {
        assertThat(BARN.decode(0, image("{\"analog-input:1\":4250,\"analog-output:1\":0.4}")))
                .isEqualTo(new Decoding.Decoded(List.of(new ChannelValue("level", 4.25), new ChannelValue("fan", 40))));
        assertThat(BARN.decode(0, image("{\"analog-value:9\":1}")))
                .isEqualTo(new Decoding.Refused("none of the objects of this model was read"));
        assertThat(BARN.decode(0, image("[1]"))).isEqualTo(new Decoding.Refused("it is no image of objects"));
        assertThat(BARN.decode(0, image("{\"fan\":1}"))).isInstanceOf(Decoding.Refused.class);
    }

    @Test
    void isAskedInGroupsOfTheirOwnPeriods() {
        assertThat(BARN.ownPeriods()).containsExactly(60);
        assertThat(BARN.group(60).channels()).containsExactly("humidity", "stage");
        assertThat(BARN.group(null).channels()).containsExactly("level", "fan");
        assertThatThrownBy(() ->
                        new ObjectField("x", ObjectId.of("analog-input:1"), null, null, 0, null, null, null, null))
                .hasMessageContaining("every 1 to 86400 seconds");
    }

    @Test
    void whatWasReadIsShownBesideWhereItLies() {
        assertThat(BARN.raw(image("{\"analog-input:1\":4250}")))
                .extracting(AskedLayout.Raw::channel, AskedLayout.Raw::where, AskedLayout.Raw::text)
                .containsExactly(
                        tuple("level", "analog-input:1", "4250.0"),
                        tuple("humidity", "analog-input:2", ""),
                        tuple("fan", "analog-output:1", ""),
                        tuple("stage", "multi-state-value:3", ""));
        assertThat(BARN.raw(new byte[0])).as("before the first round").allMatch(raw -> raw.text()
                .isEmpty());
    }

    @Test
    void isSetInTheObjectsOwnNumbersWithAPriority() {
        WriteProperty fan = BARN.write("fan", 75);
        assertThat(fan.value()).isEqualTo(new Datum.Real(0.75f));
        assertThat(fan.priority()).isEqualTo(10);
        assertThat(BARN.write("stage", 2))
                .isEqualTo(new WriteProperty(ObjectId.of("multi-state-value:3"), 85, new Datum.Unsigned(2), 8));
        assertThat(BARN.write("fan", Double.NaN).value()).as("let go").isEqualTo(new Datum.Nothing());
        assertThatThrownBy(() -> BARN.write("level", 1)).hasMessage("'level' cannot be set; there are fan stage");
    }

    @Test
    void isKeptAsData() {
        JsonMapper mapper = JsonMapper.shared();
        assertThat(mapper.readValue(mapper.writeValueAsString(BARN), Layout.class))
                .isEqualTo(BARN);
        ObjectImage image = new ObjectImage(Map.of(ObjectId.of("130:7"), 1.5));
        assertThat(ObjectImage.of(image.toBytes())).isEqualTo(image);
    }

    /** Names of two objects may be the same, units are brought into ours, what is on or off is a switch. */
    @Test
    void aModelIsProposedFromWhatAControllerSaysOfItself() {
        Controller said = Controller.of(new Controller(
                        7,
                        "Cold room",
                        "Maker",
                        "M1",
                        List.of(
                                new Controller.Holds(ObjectId.of("analog-input:1"), "Air", 62, 3.5),
                                new Controller.Holds(ObjectId.of("analog-input:2"), "Air", 53, 101_300.0),
                                new Controller.Holds(ObjectId.of("binary-input:1"), "Door", null, 1.0),
                                new Controller.Holds(ObjectId.of("analog-value:4"), "", 999, null)))
                .toBytes());
        assertThat(said.inWords())
                .isEqualTo(
                        "Cold room (Maker M1), 4 objects: Air 3.500 °C, Air 1.013e+05 Pa, Door 1.000, analog-value:4");
        Proposal proposal = Proposal.of(said).orElseThrow();
        assertThat(proposal.channels())
                .extracting(Channel::name, Channel::quantity, Channel::unit)
                .containsExactly(
                        tuple("air", Quantity.TEMPERATURE, "°C"),
                        tuple("air_2", Quantity.PRESSURE, "bar"),
                        tuple("door", Quantity.SWITCH, ""),
                        tuple("analog_value_4", Quantity.OTHER, ""));
        assertThat(proposal.values()).extracting(ChannelValue::value).containsExactly(3.5, 1.013, 1.0);
        assertThat(Proposal.of(new Controller(7, "Empty", "", "", List.of()))).isEmpty();
    }
}
