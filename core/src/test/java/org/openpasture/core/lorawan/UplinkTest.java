package org.openpasture.core.lorawan;

import static org.assertj.core.api.Assertions.assertThat;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;

/** Counters: what is new, what is old, what is somebody else's. Frames come from the independent vectors. */
class UplinkTest {
    private static final Vectors.Data THIRD = Vectors.load().data().get(2);
    private static final Vectors.Data OVER_16_BITS = Vectors.load().data().get(5);

    private static Uplink check(Vectors.Data vector, long lastUp) {
        return Uplink.check(Vectors.dataUp(vector.frame()), vector.session(lastUp));
    }

    private static Uplink.Cause cause(Uplink result) {
        return ((Uplink.Refused) result).cause();
    }

    @Test
    void missingFramesAreCounted() {
        assertThat(check(THIRD, -1))
                .isInstanceOfSatisfying(Uplink.Accepted.class, accepted -> assertThat(accepted.lost())
                        .isZero());
        assertThat(check(THIRD, 0))
                .isInstanceOfSatisfying(Uplink.Accepted.class, accepted -> assertThat(accepted.lost())
                        .isEqualTo(1));
    }

    @Test
    void theCounterGoesOnBeyondSixteenBits() {
        assertThat(check(OVER_16_BITS, 65_530)).isInstanceOfSatisfying(Uplink.Accepted.class, accepted -> {
            assertThat(accepted.counter()).isEqualTo(65_536);
            assertThat(accepted.lost()).isEqualTo(5);
            assertThat(accepted.session().lastUp()).isEqualTo(65_536);
        });
    }

    @Test
    void aReplayedFrameIsRefused() {
        assertThat(cause(check(THIRD, 5))).isEqualTo(Uplink.Cause.REPLAYED);
    }

    @Test
    void aConfirmedFrameThatComesAgainIsARepetition() {
        assertThat(check(THIRD, THIRD.counter())).isEqualTo(new Uplink.Repeated(THIRD.counter()));
    }

    @Test
    void aDeviceThatCountsFromZeroAgainIsToldFromAWrongKey() {
        assertThat(cause(check(THIRD, 70_000))).isEqualTo(Uplink.Cause.COUNTER_RESET);
    }

    @Test
    void aWrongKeyIsRefused() {
        Session other = new Session(
                DevAddr.of(THIRD.devAddr()), AesKey.ofHex("11".repeat(16)), AesKey.ofHex("22".repeat(16)), -1, 0);
        assertThat(cause(Uplink.check(Vectors.dataUp(THIRD.frame()), other))).isEqualTo(Uplink.Cause.WRONG_KEY);
    }

    @Test
    void aFrameThatWasChangedOnTheWayIsRefused() {
        byte[] bytes = Vectors.hex(THIRD.frame());
        bytes[12] ^= 1;
        PhyPayload.DataUp frame = (PhyPayload.DataUp) ((PhyPayload.Parsed.Ok) PhyPayload.parse(bytes)).frame();
        assertThat(cause(Uplink.check(frame, THIRD.session(-1)))).isEqualTo(Uplink.Cause.WRONG_KEY);
    }

    /** Whatever was accepted last, a frame is accepted only with a counter that is higher, and never twice. */
    @Property
    void anAcceptedCounterIsNewAndIsNeverAcceptedAgain(@ForAll @LongRange(min = -1, max = 200_000) long lastUp) {
        for (Vectors.Data vector : Vectors.load().data()) {
            if (check(vector, lastUp) instanceof Uplink.Accepted accepted) {
                assertThat(accepted.counter()).isGreaterThan(lastUp).isEqualTo(vector.counter());
                assertThat(Uplink.check(Vectors.dataUp(vector.frame()), accepted.session()))
                        .isNotInstanceOf(Uplink.Accepted.class);
            }
        }
    }

    /** The vector counts 65,536; the device was out of reach for 45,536 frames. */
    @Test
    void aWideGapIsForgivenUnlessTheVersionForbidsIt() {
        Session session = OVER_16_BITS.session(20_000);
        PhyPayload.DataUp frame = Vectors.dataUp(OVER_16_BITS.frame());
        assertThat(Uplink.check(frame, session, LorawanVersion.V1_0_4, 1))
                .isInstanceOfSatisfying(Uplink.Accepted.class, accepted -> assertThat(accepted.lost())
                        .isEqualTo(45_535));
        assertThat(Uplink.check(frame, session, null, 1)).isInstanceOf(Uplink.Accepted.class);
        assertThat(Uplink.check(frame, session, LorawanVersion.V1_0_3, 1))
                .isInstanceOfSatisfying(Uplink.Refused.class, refused -> {
                    assertThat(refused.cause()).isEqualTo(Uplink.Cause.COUNTER_GAP);
                    assertThat(refused.reason()).contains("45536 ahead of the last, 20000", "The key is right");
                });
    }

    @Test
    void severalRollOversMayHaveBeenMissed() {
        Session session = OVER_16_BITS.session(-1);
        assertThat(Uplink.check(Vectors.dataUp(OVER_16_BITS.frame()), session, LorawanVersion.V1_0_4, 1))
                .as("a personalised device that has counted beyond 16 bits already")
                .isInstanceOfSatisfying(Uplink.Accepted.class, accepted -> assertThat(accepted.counter())
                        .isEqualTo(65_536));
    }

    @Test
    void aRepetitionThatTheNetworkAskedForIsNoReplay() {
        Vectors.Data unconfirmed = Vectors.load().data().stream()
                .filter(vector -> !Vectors.dataUp(vector.frame()).confirmed())
                .findFirst()
                .orElseThrow();
        PhyPayload.DataUp frame = Vectors.dataUp(unconfirmed.frame());
        Session session = unconfirmed.session(unconfirmed.counter());
        assertThat(Uplink.check(frame, session, null, 3)).isEqualTo(new Uplink.Repeated(unconfirmed.counter()));
        assertThat(cause(Uplink.check(frame, session, null, 1))).isEqualTo(Uplink.Cause.REPLAYED);
        assertThat(cause(Uplink.check(frame, unconfirmed.session(unconfirmed.counter() + 1), null, 3)))
                .isEqualTo(Uplink.Cause.REPLAYED);
    }
}
