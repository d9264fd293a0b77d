package org.openpasture.inlets.packetforwarder;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.openpasture.core.lorawan.Eui64;

/** Datagrams with wild headers and wild JSON: frames or reasons, never an exception. {@code -Dfuzz=N} for more. */
class HostileDatagramsTest {
    private static final int ROUNDS = Integer.getInteger("fuzz", 8_000);
    private static final String RXPK =
            "{\"rxpk\":[{\"tmst\":5000,\"time\":\"2026-01-01T00:00:00Z\",\"freq\":868.1,\"stat\":1,\"modu\":\"LORA\",\"datr\":\"SF7BW125\","
                    + "\"rssi\":-80,\"lsnr\":7.5,\"size\":14,\"data\":\"QPF9vkkAAAABRPbjxb0=\"}],\"stat\":{\"lati\":54.2,\"rxnb\":3,\"rxok\":3}}";
    private static final String[] BITS = {
        "null", "-1", "1e400", "\"\"", "{}", "[]", "true", "9223372036854775808", "\"\\u0000\"", "[[[[[[", "-0", "NaN"
    };

    @Test
    void noDatagramThrows() {
        Random random = new Random(21);
        for (int i = 0; i < ROUNDS; i++) {
            byte[] bytes = new byte[random.nextInt(60)];
            random.nextBytes(bytes);
            if (bytes.length > 3 && random.nextBoolean()) {
                bytes[0] = 2;
                bytes[3] = (byte) random.nextInt(7);
            }
            assertThat(Datagram.read(bytes, bytes.length)).isNotNull();
        }
    }

    @Test
    void noJsonThrows() {
        Random random = new Random(22);
        for (int i = 0; i < ROUNDS; i++) {
            StringBuilder text = new StringBuilder(RXPK);
            for (int k = random.nextInt(4); k >= 0; k--) {
                int at = random.nextInt(text.length());
                switch (random.nextInt(3)) {
                    case 0 -> text.setCharAt(at, (char) (32 + random.nextInt(95)));
                    case 1 -> text.insert(at, BITS[random.nextInt(BITS.length)]);
                    default -> text.delete(at, Math.min(text.length(), at + random.nextInt(12)));
                }
            }
            ForwarderJson.Push push = ForwarderJson.readPush(
                    new Eui64(1), text.toString().getBytes(StandardCharsets.UTF_8), Instant.EPOCH);
            push.frames().forEach(frame -> assertThat(frame.bytes().length).isBetween(1, 255));
            assertThat(push.frames().size()
                            + push.refusals().size()
                            + (push.status().isPresent() ? 1 : 0))
                    .as("%s", text)
                    .isPositive();
        }
    }
}
