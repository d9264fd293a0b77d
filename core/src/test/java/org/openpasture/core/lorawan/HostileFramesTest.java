package org.openpasture.core.lorawan;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.openpasture.core.layout.ByteLayout;
import org.openpasture.core.layout.Decoding;
import org.openpasture.core.layout.Field;
import org.openpasture.core.layout.FieldType;
import org.openpasture.core.layout.Message;

/**
 * Random bytes, and true frames with a few bytes changed: never an exception, never taken for authentic.
 * {@code -Dfuzz=N} for more.
 */
class HostileFramesTest {
    private static final int ROUNDS = Integer.getInteger("fuzz", 20_000);
    private static final List<byte[]> TRUE_ONES = Vectors.load().data().stream()
            .map(vector -> Vectors.hex(vector.frame()))
            .toList();
    private static final Session SESSION = Vectors.load().data().getFirst().session(-1);

    private static byte[] wild(Random random) {
        if (random.nextBoolean()) {
            byte[] bytes = new byte[random.nextInt(280)];
            random.nextBytes(bytes);
            return bytes;
        }
        byte[] bytes = TRUE_ONES.get(random.nextInt(TRUE_ONES.size())).clone();
        for (int i = random.nextInt(4); i >= 0; i--) {
            bytes[random.nextInt(bytes.length)] ^= (byte) (1 + random.nextInt(255));
        }
        return random.nextInt(4) == 0 ? java.util.Arrays.copyOf(bytes, random.nextInt(bytes.length + 1)) : bytes;
    }

    @Test
    void noFrameThrowsAndNoneIsTakenForAuthentic() {
        Random random = new Random(11);
        for (int i = 0; i < ROUNDS; i++) {
            byte[] bytes = wild(random);
            if (PhyPayload.parse(bytes) instanceof PhyPayload.Parsed.Ok(PhyPayload.DataUp frame)
                    && TRUE_ONES.stream().noneMatch(one -> java.util.Arrays.equals(one, bytes))) {
                assertThat(Uplink.check(frame, SESSION)).isInstanceOf(Uplink.Refused.class);
            }
        }
    }

    @Test
    void noMacCommandsThrow() {
        Random random = new Random(12);
        MacLayer layer = new MacLayer(Region.shipped("us915"), 2, NetworkSettings.STANDARD);
        MacState state = MacState.fresh(Region.shipped("us915"), List.of(), false);
        MacLayer.Heard heard = new MacLayer.Heard(Region.shipped("us915").rx2(), 3, 1, java.time.Instant.EPOCH);
        for (int i = 0; i < ROUNDS; i++) {
            byte[] bytes = new byte[random.nextInt(40)];
            random.nextBytes(bytes);
            for (int k = 0; k < bytes.length && random.nextBoolean(); k++) {
                bytes[k] = (byte) (random.nextInt(14));
            }
            state = layer.hear(state, MacCommand.fromDevice(bytes), heard).state();
            state = layer.ask(
                            state,
                            LinkHistory.empty().with(2, 0, i, 5),
                            true,
                            false,
                            15,
                            java.time.Instant.ofEpochSecond(i))
                    .state();
        }
        assertThat(state.channelsHz()).isEmpty();
    }

    @Test
    void noPayloadThrowsWhateverTheLayout() {
        Random random = new Random(13);
        for (int i = 0; i < ROUNDS; i++) {
            FieldType type = FieldType.values()[random.nextInt(FieldType.values().length)];
            Field field = new Field(
                    "x",
                    random.nextInt(-300, 300),
                    type,
                    random.nextBoolean() ? "little" : "big",
                    random.nextBoolean() ? new Field.Bits(random.nextInt(16), 1 + random.nextInt(16)) : null,
                    random.nextBoolean() ? random.nextGaussian() : null,
                    random.nextBoolean() ? random.nextGaussian() : null,
                    null);
            byte[] bytes = new byte[random.nextInt(256)];
            random.nextBytes(bytes);
            ByteLayout layout = new ByteLayout(List.of(new Message(random.nextBoolean() ? null : 1, List.of(field))));
            assertThat(layout.decode(1, bytes)).isInstanceOfAny(Decoding.Decoded.class, Decoding.Refused.class);
            layout.parts(1, bytes).forEach(part -> assertThat(part.until()).isLessThanOrEqualTo(bytes.length));
        }
    }

    @Test
    void noLabelThrowsAnythingButWords() {
        Random random = new Random(14);
        String label = "LW:D0:1122334455667788:AABBCCDDEEFF0011:AABB1122:OAABBCCDDEEFF:SYYWWNNNNNN:PFOOBAR:CAF2C";
        for (int i = 0; i < ROUNDS / 5; i++) {
            StringBuilder text = new StringBuilder(label);
            for (int k = random.nextInt(5); k >= 0; k--) {
                text.setCharAt(random.nextInt(text.length()), (char) (32 + random.nextInt(224)));
            }
            try {
                assertThat(DeviceLabel.parse(text.toString())).isNotNull();
            } catch (IllegalArgumentException e) {
                assertThat(e.getMessage()).isNotBlank();
            }
        }
    }
}
