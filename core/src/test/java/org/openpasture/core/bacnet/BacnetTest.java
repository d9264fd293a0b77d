package org.openpasture.core.bacnet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import java.time.LocalDateTime;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Byte layouts as the examples of ASHRAE 135, annex F, have them, and as an independent implementation made them. */
class BacnetTest {
    private static byte[] hex(String digits) {
        return HexFormat.of().parseHex(digits.replace(" ", ""));
    }

    private static String hex(Apdu apdu) {
        return HexFormat.of().formatHex(apdu.toBytes());
    }

    private static byte[] content(String apdu) {
        return switch (Apdu.of(hex(apdu))) {
            case Apdu.Answer(int id, int service, byte[] content) -> content;
            case Apdu.Confirmed(int id, Apdu.Service service, byte[] content) -> content;
            case Apdu.Unconfirmed(Apdu.Announcement announcement, byte[] content) -> content;
            case Apdu.Done done -> new byte[0];
            case Apdu.Failed failed -> new byte[0];
        };
    }

    @Test
    void aPropertyIsRead() {
        assertThat(hex(new ReadProperty(ObjectId.of("analog-input:5"), Property.PRESENT_VALUE, null).apdu(1)))
                .isEqualTo("0005010c0c000000051955");
        assertThat(ReadProperty.answer(content("30 01 0C 0C 00000005 19 55 3E 44 42 90 99 9A 3F")))
                .containsExactly(new Datum.Real(72.3f));
    }

    @Test
    void severalPropertiesAreReadAtOnceAndSomeRefused() {
        ObjectId input = ObjectId.of("analog-input:16");
        assertThat(hex(new ReadProperties(
                                List.of(new ReadProperties.Wanted(input, 85), new ReadProperties.Wanted(input, 103)))
                        .apdu(241)))
                .isEqualTo("0005f10e0c000000101e095509671f");
        List<ReadProperties.Found> found = ReadProperties.answer(
                content("30 F1 0E 0C 00000010 1E 29 55 4E 44 42 90 99 9A 4F 29 67 4E 91 00 4F 1F"));
        assertThat(found)
                .extracting(ReadProperties.Found::property, ReadProperties.Found::number)
                .containsExactly(tuple(85, Optional.of(72.3)), tuple(103, Optional.of(0.0)));
        assertThat(ReadProperties.answer(content("30 01 0E 0C 00000001 1E 29 55 5E 91 02 91 20 5F 1F")))
                .singleElement()
                .satisfies(one -> assertThat(one.problem()).isEqualTo("the object has no such property"));
    }

    @Test
    void whoIsThereIsAskedAndAnswered() {
        assertThat(hex(new WhoIs(3, 3).apdu())).isEqualTo("100809031903");
        assertThat(hex(WhoIs.anybody().apdu())).isEqualTo("1008");
        assertThat(IAm.of(content("10 00 C4 02 00 00 01 22 01 E0 91 01 21 63"))).isEqualTo(new IAm(1, 480, 99));
        assertThat(IAm.of(content("10 00 c4 02 00 10 92 22 05 ca 91 03 22 03 e7")))
                .as("by @bacnet-js/client")
                .isEqualTo(new IAm(4_242, 1_482, 999));
        assertThatThrownBy(() -> IAm.of(content("10 00 C4 00 00 00 01 22 01 E0 91 01 21 63")))
                .hasMessageContaining("names no device");
    }

    @Test
    void changesAreWantedAndTold() {
        assertThat(hex(new SubscribeCov(18, ObjectId.of("analog-input:10"), 60).apdu(15)))
                .isEqualTo("00050f0509121c0000000a2900393c");
        CovNotification told = CovNotification.of(
                content(
                        "00 02 0F 01 09 12 1C 02000004 2C 0000000A 39 00 4E 09 55 2E 44 42 82 00 00 2F 09 6F 2E 82 04 00 2F 4F"));
        assertThat(told.device()).isEqualTo(4);
        assertThat(told.object()).isEqualTo(ObjectId.of("analog-input:10"));
        assertThat(told.values().getFirst().number()).contains(65.0);
        assertThat(told.values().get(1).data())
                .singleElement()
                .satisfies(flags -> assertThat(((Datum.Bits) flags).count()).isEqualTo(4));
    }

    @Test
    void aPropertyIsWrittenWithAPriority() {
        ObjectId output = ObjectId.of("analog-value:1");
        assertThat(hex(new WriteProperty(output, 85, new Datum.Real(180f), null).apdu(89)))
                .isEqualTo("0005590f0c0080000119553e44433400003f");
        assertThat(hex(new WriteProperty(output, 85, new Datum.Nothing(), 8).apdu(1)))
                .isEqualTo("0005010f0c0080000119553e003f4908");
        assertThat(WriteProperty.valueFor(ObjectId.of("binary-output:1"), 1)).isEqualTo(new Datum.Choice(1));
        assertThat(WriteProperty.valueFor(ObjectId.of("multi-state-value:1"), 3))
                .isEqualTo(new Datum.Unsigned(3));
        assertThatThrownBy(() -> new WriteProperty(output, 85, new Datum.Nothing(), 17))
                .hasMessageContaining("1 to 16");
    }

    @Test
    void aTrendLogIsReadFromATimeOn() {
        assertThat(hex(TrendLog.after(1, ObjectId.of("trend-log:1"), LocalDateTime.of(1998, 3, 23, 19, 52, 34), 4)))
                .isEqualTo("0005011a0c0500000119837ea462031701b413342200" + "31047f");
        TrendLog.Piece piece = TrendLog.answer(content(
                "30 01 1A 0C 05000001 19 83 3A 05 A0 49 02 5E 0E A4 62 03 17 01 B4 13 36 1B 00 0F 1E 2C 41 90 00 00 1F 2A 04 00"
                        + "0E A4 62 03 17 01 B4 13 38 1B 00 0F 1E 2C 41 90 CC CD 1F 2A 04 00 5F 6B 01 35 61"));
        assertThat(piece.entries())
                .containsExactly(
                        new TrendLog.Entry(LocalDateTime.of(1998, 3, 23, 19, 54, 27), 18.0),
                        new TrendLog.Entry(LocalDateTime.of(1998, 3, 23, 19, 56, 27), 18.1));
        assertThat(piece.more()).as("the third flag").isTrue();
        TrendLog.Piece status = TrendLog.answer(content(
                "30 01 1A 0C 05000001 19 83 3A 05 C0 49 01 5E 0E A4 62 03 17 01 B4 13 36 1B 00 0F 1E 0A 05 00 1F 5F"));
        assertThat(status.entries()).as("the log was switched on").isEmpty();
        assertThat(status.last()).contains(LocalDateTime.of(1998, 3, 23, 19, 54, 27));
    }

    @Test
    void packetsSayWhoTheyAreFor() {
        byte[] apdu = WhoIs.anybody().apdu().toBytes();
        assertThat(Packet.toAll(apdu).toBytes()).isEqualTo(hex("81 0b 0008 01 00 1008"));
        Packet.Network behind = new Packet.Network(5, new byte[] {12});
        assertThat(Packet.to(Optional.of(behind), true, apdu).toBytes())
                .isEqualTo(hex("81 0a 000d 01 24 0005 01 0c ff 1008"));
        Packet heard = Packet.of(hex("81 04 0013 0a000001bac0 01 08 0005 01 0c 10 00 c4"))
                .orElseThrow();
        assertThat(heard.origin())
                .as("answered there, and not at who forwards")
                .contains(new Packet.Origin("10.0.0.1", 47_808));
        assertThat(Packet.of(hex("81 0b 0008 01 00 1008")).orElseThrow().origin())
                .isEmpty();
        assertThat(heard.network()).contains(behind);
        assertThat(heard.apdu()).isEqualTo(hex("1000c4"));
        assertThat(Packet.of(hex("81 0a 0007 01 80 00"))).as("between routers").isEmpty();
        assertThatThrownBy(() -> Packet.of(hex("81 0a 0008 01 00"))).hasMessageContaining("another length");
    }

    @ParameterizedTest
    @CsvSource({
        "50 01 0C 91 02 91 1F, it has no such object",
        "50 01 0F 91 02 91 28, it cannot be written",
        "60 01 09, it does not know this service",
        "70 01 04, 'the answer is segmented, which is not supported'",
        "50 01 05 91 01 91 2D, it cannot take another subscriber for changes",
        "50 01 0C 91 02 91 63, 'it refuses with error class 2, code 99'"
    })
    void refusalsAreSaidInWords(String apdu, String words) {
        assertThat(Apdu.of(hex(apdu))).isEqualTo(new Apdu.Failed(1, words));
    }

    @ParameterizedTest
    @CsvSource({"analog-input:3, 0, 3", "binary-output:0, 4, 0", "130:7, 130, 7", "device:4194302, 8, 4194302"})
    void objectsAreNamed(String text, int type, int instance) {
        assertThat(ObjectId.of(text)).isEqualTo(new ObjectId(type, instance));
        assertThat(ObjectId.of(text).text()).isEqualTo(text);
        assertThatThrownBy(() -> ObjectId.of("fan")).hasMessageContaining("names no object, such as analog-input:3");
    }
}
