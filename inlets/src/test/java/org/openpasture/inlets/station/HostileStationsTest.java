package org.openpasture.inlets.station;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.lorawan.Region;
import org.openpasture.inlets.bacnet.BacnetAddress;
import org.openpasture.inlets.gateway.RadioFrame;
import org.openpasture.inlets.modbus.ModbusAddress;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * What stations send, and addresses that people type, damaged at random: read or refused. {@code -Dfuzz=N} for more.
 */
class HostileStationsTest {
    private static final int ROUNDS = Integer.getInteger("fuzz", 8_000);
    private static final String[] MESSAGES = {
        "{\"msgtype\":\"jreq\",\"MHdr\":0,\"JoinEui\":\"02-AB-54-00-00-00-00-01\",\"DevEui\":\"02-AB-54-00-00-00-01-01\","
                + "\"DevNonce\":7,\"MIC\":-5,\"DR\":5,\"Freq\":868100000,\"upinfo\":{\"rctx\":0,\"xtime\":7,\"gpstime\":0,\"rssi\":-80,\"snr\":7.5}}",
        "{\"msgtype\":\"updf\",\"MHdr\":64,\"DevAddr\":-7,\"FCtrl\":0,\"FCnt\":3,\"FOpts\":\"0203\",\"FPort\":2,\"FRMPayload\":\"01ff\","
                + "\"MIC\":99,\"DR\":5,\"Freq\":868100000,\"upinfo\":{\"rctx\":0,\"xtime\":7,\"rxtime\":1.79e9,\"rssi\":-80,\"snr\":7.5}}",
        "{\"msgtype\":\"propdf\",\"FRMPayload\":\"e0ff00\",\"DR\":5,\"Freq\":868100000,\"upinfo\":{\"xtime\":7}}"
    };
    private static final String[] BITS = {
        "null", "-1", "1e400", "\"\"", "{}", "[]", "true", "9223372036854775808", "ffff", "\"zz\"", "-0", "256"
    };
    private static final String[] ADDRESSES = {"7@10.0.0.5:47808", "10.0.0.5:502/3", "12@[fe80::1]:47808", "3"};

    private static final Region EUROPE = Region.shipped("eu868");

    @Test
    void noMessageOfAStationThrowsAnythingButWords() {
        Random random = new Random(25);
        for (int i = 0; i < ROUNDS; i++) {
            String text = damaged(random, MESSAGES[random.nextInt(MESSAGES.length)]);
            try {
                JsonNode message = JsonMapper.shared().readTree(text);
                RadioFrame frame = StationFrame.read(
                        message.path("msgtype").asString(""), message, new Eui64(1), EUROPE, Instant.EPOCH);
                assertThat(frame.bytes().length).isBetween(1, 255);
            } catch (JacksonException | IllegalArgumentException expected) {
                assertThat(expected.getMessage()).as("%s", text).isNotBlank();
            }
        }
    }

    @Test
    void noAddressThrowsAnythingButWords() {
        Random random = new Random(26);
        for (int i = 0; i < ROUNDS; i++) {
            String text = damaged(random, ADDRESSES[random.nextInt(ADDRESSES.length)]);
            for (Runnable reading : new Runnable[] {
                () -> BacnetAddress.of(text), () -> ModbusAddress.of(text), () -> ModbusAddress.unit(text)
            }) {
                try {
                    reading.run();
                } catch (IllegalArgumentException expected) {
                    assertThat(expected)
                            .as("%s", text)
                            .isNotInstanceOf(NumberFormatException.class)
                            .hasMessageMatching("(?s).+");
                }
            }
        }
    }

    private static String damaged(Random random, String whole) {
        StringBuilder text = new StringBuilder(whole);
        for (int k = random.nextInt(4); k >= 0; k--) {
            int at = random.nextInt(text.length() + 1);
            switch (random.nextInt(3)) {
                case 0 -> text.insert(at, (char) (32 + random.nextInt(95)));
                case 1 -> text.insert(at, BITS[random.nextInt(BITS.length)]);
                default -> text.delete(at, Math.min(text.length(), at + random.nextInt(8)));
            }
        }
        return text.toString();
    }
}
