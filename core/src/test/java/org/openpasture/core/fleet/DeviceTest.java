package org.openpasture.core.fleet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.registry.Registry;
import tools.jackson.databind.json.JsonMapper;

class DeviceTest {
    @Test
    void devicesThatWereKeptWhenThereWereOnlyRadioOnesAreStillRead() {
        Device device = JsonMapper.shared().readValue("""
        {"id": "d", "name": "Sender", "modelId": "m", "placeId": "p",
         "radio": {"activation": "over-the-air", "devEui": "02ab540000000101", "joinEui": "02ab540000000001"}}""", Device.class);
        assertThat(device.devEui()).contains(new Eui64(0x02ab540000000101L));
        assertThat(device.inletId()).isEmpty();
        assertThat(device.polling()).isNull();
    }

    @Test
    void aDeviceOfAnInletIsFoundByItsAddressInSmallAndCapitalLetters() {
        Device beacon = new Device("d", "Beacon", "m", "p", new DeviceIdentity.OfInlet("i", " 02:AB:54 "));
        Registry registry = Registry.of(java.util.List.of(beacon));
        assertThat(registry.device("i", "02:ab:54")).contains(beacon);
        assertThat(registry.device("other", "02:ab:54")).isEmpty();
        assertThat(JsonMapper.shared().readValue(JsonMapper.shared().writeValueAsString(beacon), Device.class))
                .isEqualTo(beacon);
        assertThatThrownBy(() -> new DeviceIdentity.OfInlet("i", " ")).hasMessageContaining("1 to 120 characters");
        assertThatThrownBy(() -> new Polling(false, 100_000)).hasMessageContaining("1 to 86400 seconds");
    }
}
