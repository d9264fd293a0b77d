package org.openpasture.core.framing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.json.JsonMapper;

class FramingTest {
    /**
     * Start byte, one byte of length that counts what follows it up to the sum, payload, sum: as many a serial radio
     * modem speaks.
     */
    private static final Framing.Framed MODEM =
            new Framing.Framed("7e", null, 1, null, null, 3, Checksum.CRC_16_MODBUS, "little", null, null, null);

    private static List<String> whole(Splitter splitter, String hex) {
        return payloads(splitter.feed(HexFormat.of().parseHex(hex.replace(" ", ""))));
    }

    private static List<String> payloads(List<Splitter.Piece> pieces) {
        return pieces.stream()
                .filter(Splitter.Piece.Whole.class::isInstance)
                .map(piece -> HexFormat.of().formatHex(((Splitter.Piece.Whole) piece).payload()))
                .toList();
    }

    private static List<String> reasons(List<Splitter.Piece> pieces) {
        return pieces.stream()
                .filter(Splitter.Piece.Lost.class::isInstance)
                .map(piece -> ((Splitter.Piece.Lost) piece).reason())
                .toList();
    }

    private static byte[] modem(byte... payload) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.write(0x7e);
        out.write(payload.length + 1);
        out.writeBytes(payload);
        byte[] body = out.toByteArray();
        long sum = Checksum.CRC_16_MODBUS.over(body, 0, body.length);
        out.write((int) sum);
        out.write((int) sum >> 8);
        return out.toByteArray();
    }

    @Test
    void linesEndAsTheyMay() {
        Splitter lines = new Framing.Lines(null, null).splitter();
        List<Splitter.Piece> pieces =
                new ArrayList<>(lines.feed("WS2;8.4\r\n\n  \nWS2;8.".getBytes(StandardCharsets.UTF_8)));
        pieces.addAll(lines.feed("5\nlast".getBytes(StandardCharsets.UTF_8)));
        pieces.addAll(lines.end());
        assertThat(pieces)
                .extracting(piece -> new String(((Splitter.Piece.Whole) piece).payload(), StandardCharsets.UTF_8))
                .containsExactly("WS2;8.4", "WS2;8.5", "last");
    }

    @Test
    void aLineWithACheckedEndIsTakenWithoutIt() {
        Splitter lines = new Framing.Lines(null, true).splitter();
        List<Splitter.Piece> pieces = lines.feed(
                "$WIMWV,214.8,R,0.1,K,A*28\n$WIMWV,214.8,R,0.2,K,A*28\nWS2;3\n".getBytes(StandardCharsets.US_ASCII));
        assertThat(new String(((Splitter.Piece.Whole) pieces.getFirst()).payload(), StandardCharsets.US_ASCII))
                .isEqualTo("WIMWV,214.8,R,0.1,K,A");
        assertThat(reasons(pieces))
                .containsExactly(
                        "the checksum is 2B, but the line says 28: it was garbled on the way",
                        "the line does not end with * and two hex digits");
    }

    @Test
    void aLineThatNeverEndsIsGivenUpAndTheNextIsRead() {
        Splitter lines = new Framing.Lines(null, null).splitter();
        List<Splitter.Piece> pieces =
                new ArrayList<>(lines.feed("x".repeat(20_000).getBytes(StandardCharsets.US_ASCII)));
        pieces.addAll(lines.feed("xx\nok\n".getBytes(StandardCharsets.US_ASCII)));
        assertThat(reasons(pieces)).containsExactly("a line is longer than 8192 characters");
        assertThat(payloads(pieces)).containsExactly("6f6b");
    }

    @Test
    void aFrameIsFoundByItsBeginningLengthAndSum() {
        Splitter splitter = MODEM.splitter();
        byte[] frame = modem((byte) 0x11, (byte) 0x22);
        assertThat(payloads(splitter.feed(Arrays.copyOf(frame, 3)))).isEmpty();
        assertThat(payloads(splitter.feed(Arrays.copyOfRange(frame, 3, frame.length))))
                .containsExactly("1122");
    }

    @Test
    void afterAGarbledFrameTheNextIsRead() {
        byte[] broken = modem((byte) 1, (byte) 2, (byte) 3);
        broken[3] ^= 0x40;
        ByteArrayOutputStream stream = new ByteArrayOutputStream();
        stream.writeBytes(new byte[] {9, 9});
        stream.writeBytes(broken);
        stream.writeBytes(modem((byte) 4));
        List<Splitter.Piece> pieces = MODEM.splitter().feed(stream.toByteArray());
        assertThat(payloads(pieces)).containsExactly("04");
        assertThat(reasons(pieces)).singleElement().asString().startsWith("the checksum (crc-16-modbus) is ");
    }

    @Test
    void aGarbledLengthHoldsTheNextFrameUpOnlyUntilThePause() {
        Splitter splitter = MODEM.splitter();
        byte[] broken = modem((byte) 1);
        broken[1] = (byte) 0xC0;
        splitter.feed(broken);
        assertThat(payloads(splitter.feed(modem((byte) 4)))).isEmpty();
        assertThat(payloads(splitter.end())).containsExactly("04");
    }

    @Test
    void framesOfOneLengthWithAnEnd() {
        Framing.Framed framing =
                new Framing.Framed("aa55", 8, null, null, null, null, Checksum.SUM_8, null, 2, "0d", null);
        assertThat(whole(framing.splitter(), "aa55 01020304 0a 0d aa55 01020304 0b 0d aa55 00000001 01 0d"))
                .containsExactly("01020304", "00000001");
    }

    @Test
    void whatCannotBeIsSaidWhenItIsDescribed() {
        assertThatThrownBy(() -> new Framing.Framed("", 8, null, null, null, null, null, null, null, null, null))
                .hasMessage("a frame begins with 1 to 8 fixed bytes, not 0");
        assertThatThrownBy(() -> new Framing.Framed("7e", null, null, null, null, null, null, null, null, null, null))
                .hasMessageContaining("lengthAt");
        assertThatThrownBy(() -> new Framing.Lines("ab", null)).hasMessageContaining("one character");
    }

    @Test
    void isReadFromJson() {
        assertThat(JsonMapper.shared().readValue("""
        {"kind": "framed", "start": "7e", "lengthAt": 1, "lengthAdds": 3, "checksum": "crc-16-modbus", "checksumOrder": "little"}""", Framing.class)).isEqualTo(MODEM);
    }

    /**
     * However a stream is cut into pieces, and whatever noise without a beginning lies between: every frame comes out,
     * once, in order.
     */
    @Property(tries = 300)
    void everyFrameComesOutHoweverTheStreamIsCut(
            @ForAll @Size(max = 20) List<@Size(max = 30) byte[]> payloads,
            @ForAll long seed,
            @ForAll @IntRange(min = 1, max = 40) int longest) {
        Random random = new Random(seed);
        ByteArrayOutputStream stream = new ByteArrayOutputStream();
        for (byte[] payload : payloads) {
            stream.writeBytes(new byte[random.nextInt(4)]);
            stream.writeBytes(modem(payload));
        }
        Splitter splitter = MODEM.splitter();
        List<String> found = new ArrayList<>();
        byte[] all = stream.toByteArray();
        for (int at = 0; at < all.length; ) {
            int until = Math.min(all.length, at + 1 + random.nextInt(longest));
            found.addAll(payloads(splitter.feed(Arrays.copyOfRange(all, at, until))));
            at = until;
        }
        assertThat(found)
                .containsExactlyElementsOf(
                        payloads.stream().map(HexFormat.of()::formatHex).toList());
    }

    /**
     * Any bytes at all: no exception, nothing kept without bound, and what is said to be lost or whole is never more
     * than what came.
     */
    @Property(tries = 500)
    void anyBytesAreCutWithoutHarm(@ForAll @Size(max = 600) byte[] noise, @ForAll boolean lines) {
        Splitter splitter = (lines ? new Framing.Lines(null, true) : MODEM).splitter();
        List<Splitter.Piece> pieces = new ArrayList<>(splitter.feed(noise));
        pieces.addAll(splitter.end());
        assertThat(pieces.stream()
                        .mapToInt(piece -> switch (piece) {
                            case Splitter.Piece.Whole one -> one.bytes().length;
                            case Splitter.Piece.Lost one -> one.bytes().length;
                        })
                        .sum())
                .isLessThanOrEqualTo(noise.length);
    }
}
