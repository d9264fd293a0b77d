package org.openpasture.core.lorawan;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HexFormat;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** What we read and write is what an independent implementation writes and reads. */
class AgainstAnotherImplementationTest {
    private static final Vectors VECTORS = Vectors.load();

    static List<Vectors.Data> data() {
        return VECTORS.data();
    }

    static List<Vectors.Join> joins() {
        return VECTORS.joins();
    }

    static List<Vectors.Accept> accepts() {
        return VECTORS.accepts();
    }

    static List<Vectors.Ack> acknowledgements() {
        return VECTORS.acknowledgements();
    }

    static List<Vectors.Down> downlinks() {
        return VECTORS.downlinks();
    }

    @ParameterizedTest
    @MethodSource("downlinks")
    void aDownlinkHasTheSameBytes(Vectors.Down vector) {
        Session session = new Session(
                DevAddr.of(vector.devAddr()),
                AesKey.ofHex(vector.nwkSKey()),
                AesKey.ofHex(vector.appSKey()),
                4,
                vector.counter());
        Downlink downlink = Downlink.of(
                session,
                new Downlink.Content(
                        vector.confirmed(),
                        false,
                        vector.adr(),
                        true,
                        Vectors.hex(vector.options()),
                        vector.port(),
                        Vectors.hex(vector.payload())));
        assertThat(HexFormat.of().formatHex(downlink.bytes())).isEqualTo(vector.frame());
        assertThat(downlink.session().nextDown()).isEqualTo(vector.counter() + 1);
    }

    @ParameterizedTest
    @MethodSource("data")
    void aDataFrameIsParsedCheckedAndDecrypted(Vectors.Data vector) {
        PhyPayload.DataUp frame = Vectors.dataUp(vector.frame());
        assertThat(frame.confirmed()).isEqualTo(vector.confirmed());
        assertThat(frame.devAddr()).hasToString(vector.devAddr());
        assertThat(frame.adaptiveDataRate()).isEqualTo(vector.adr());
        assertThat(frame.counter()).isEqualTo((int) (vector.counter() & 0xFFFF));
        assertThat(frame.port()).isEqualTo(vector.port());
        assertThat(frame.options()).isEqualTo(Vectors.hex(vector.options()));

        Uplink result = Uplink.check(frame, vector.session(vector.counter() - 1));
        assertThat(result).isInstanceOfSatisfying(Uplink.Accepted.class, accepted -> {
            assertThat(accepted.counter()).isEqualTo(vector.counter());
            assertThat(accepted.payload()).isEqualTo(Vectors.hex(vector.payload()));
            assertThat(accepted.lost()).isZero();
        });
    }

    @ParameterizedTest
    @MethodSource("joins")
    void aJoinRequestIsParsedAndItsKeyIsRecognised(Vectors.Join vector) {
        assertThat(PhyPayload.parse(Vectors.hex(vector.frame())))
                .isInstanceOfSatisfying(PhyPayload.Parsed.Ok.class, ok -> {
                    PhyPayload.JoinRequest join = (PhyPayload.JoinRequest) ok.frame();
                    assertThat(join.joinEui()).hasToString(vector.joinEui());
                    assertThat(join.devEui()).hasToString(vector.devEui());
                    assertThat(join.devNonce()).isEqualTo(vector.nonce());
                    assertThat(join.isAuthentic(AesKey.ofHex(vector.appKey()))).isTrue();
                    assertThat(join.isAuthentic(AesKey.ofHex("00".repeat(16)))).isFalse();
                });
    }

    @ParameterizedTest
    @MethodSource("accepts")
    void aJoinAcceptHasTheSameBytesAndTheSameSessionKeys(Vectors.Accept vector) {
        PhyPayload.JoinRequest request =
                new PhyPayload.JoinRequest(new Eui64(0), new Eui64(1), vector.devNonce(), new byte[23]);
        JoinAccept accept = JoinAccept.answer(
                request,
                AesKey.ofHex(vector.appKey()),
                vector.joinNonce(),
                vector.netId(),
                DevAddr.of(vector.devAddr()),
                vector.dlSettings(),
                vector.rxDelay(),
                vector.channels().isEmpty()
                        ? new byte[0]
                        : new MacLayer(Region.shipped("eu868"), 0, NetworkSettings.STANDARD).channelList());
        assertThat(HexFormat.of().formatHex(accept.bytes())).isEqualTo(vector.frame());
        assertThat(accept.session().nwkSKey()).isEqualTo(AesKey.ofHex(vector.nwkSKey()));
        assertThat(accept.session().appSKey()).isEqualTo(AesKey.ofHex(vector.appSKey()));
    }

    @ParameterizedTest
    @MethodSource("acknowledgements")
    void anAcknowledgementHasTheSameBytesAndUsesUpItsCounter(Vectors.Ack vector) {
        Session session = new Session(
                DevAddr.of(vector.devAddr()),
                AesKey.ofHex(vector.nwkSKey()),
                AesKey.ofHex(vector.appSKey()),
                9,
                vector.counter());
        Downlink downlink =
                Downlink.of(session, new Downlink.Content(false, true, false, false, new byte[0], -1, new byte[0]));
        assertThat(HexFormat.of().formatHex(downlink.bytes())).isEqualTo(vector.frame());
        assertThat(downlink.session().nextDown()).isEqualTo(vector.counter() + 1);
        assertThat(downlink.session().lastUp()).isEqualTo(9);
    }
}
