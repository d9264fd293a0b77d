package org.openpasture.core.layout;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.within;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.HexFormat;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.json.JsonMapper;

class LayoutTest {
    private static double value(Field field, String hex) {
        Decoding decoding = new ByteLayout(List.of(new Message(null, List.of(field))))
                .decode(1, HexFormat.of().parseHex(hex));
        return ((Decoding.Decoded) decoding).values().getFirst().value();
    }

    @ParameterizedTest
    @CsvSource({
        "u8, ff, 255",
        "i8, ff, -1",
        "u16, 8001, 32769",
        "i16, 8001, -32767",
        "u24, 010000, 65536",
        "i24, ffffff, -1",
        "u32, ffffffff, 4294967295",
        "i32, fffffffe, -2",
        "f32, 41480000, 12.5",
        "f64, 4028ae147ae147ae, 12.34"
    })
    void readsEachNumberFormat(String type, String hex, double number) {
        assertThat(value(Field.of("x", 0, FieldType.of(type)), hex)).isEqualTo(number, within(1e-12));
    }

    @Test
    void readsLittleEndianScaledFromTheEnd() {
        Field field = new Field("level", -2, FieldType.U16, "little", null, 0.01, -40.0, null);
        assertThat(value(field, "aabbcc1027")).isEqualTo(10_000 * 0.01 - 40, within(1e-9));
    }

    @ParameterizedTest
    @CsvSource({
        "00e6, 0.01, 2.3",
        "00e7, 0.01, 2.31",
        "0007, 0.1, 0.7",
        "0003, 0.001, 0.003",
        "0003, 2, 6",
        "0005, 0.5, 2.5",
        "0003, 0.3, 0.9",
        "0002, -0.1, -0.2"
    })
    void aDecimalScaleGivesTheDecimalThatIsMeant(String hex, double scale, double value) {
        double read = value(new Field("x", 0, FieldType.U16, null, null, scale, null, null), hex);
        assertThat(read).isEqualTo(value, within(Math.abs(scale - 0.3) < 1e-9 ? 1e-12 : 0.0));
    }

    @Test
    void readsSomeBits() {
        Field field = new Field("state", 0, FieldType.U8, null, new Field.Bits(2, 3), null, null, null);
        assertThat(value(field, "b4")).isEqualTo(0b101);
    }

    @Test
    void leavesOutWhatTheDeviceSaysItDoesNotHave() {
        ByteLayout layout = new ByteLayout(List.of(new Message(
                null,
                List.of(
                        new Field("t", 0, FieldType.I16, null, null, 0.1, null, -32_768.0),
                        Field.of("h", 2, FieldType.U8)))));
        assertThat(layout.decode(1, HexFormat.of().parseHex("800030")))
                .isEqualTo(new Decoding.Decoded(List.of(new ChannelValue("h", 48))));
    }

    @Test
    void aFrameThatIsTooShortIsRefusedAsAWhole() {
        ByteLayout layout = new ByteLayout(
                List.of(new Message(null, List.of(Field.of("t", 0, FieldType.U8), Field.of("co2", 3, FieldType.U16)))));
        assertThat(layout.decode(1, new byte[4]))
                .isEqualTo(new Decoding.Refused("the frame has 4 bytes, but 'co2' is read from byte 3 to 4"));
    }

    @Test
    void choosesTheMessageByPort() {
        ByteLayout layout = new ByteLayout(List.of(
                new Message(2, List.of(Field.of("a", 0, FieldType.U8))),
                new Message(3, List.of(Field.of("b", 0, FieldType.U8)))));
        assertThat(layout.decode(3, new byte[] {7})).isEqualTo(new Decoding.Decoded(List.of(new ChannelValue("b", 7))));
        assertThat(layout.decode(4, new byte[] {7}))
                .isEqualTo(new Decoding.Refused("the layout describes no message on port 4"));
    }

    @Test
    void isReadFromAFile() {
        Layout layout = JsonMapper.builder().build().readValue("""
        {"messages": [{"port": 5, "fields": [{"channel": "p", "at": 1, "type": "u16", "order": "little", "scale": 0.1}]}]}""", Layout.class);
        assertThat(layout.decode(5, new byte[] {0, 10, 0}))
                .isEqualTo(new Decoding.Decoded(List.of(new ChannelValue("p", 1))));
    }

    @Property
    void anyWordReadsBackInBothOrders(@ForAll int word, @ForAll @IntRange(max = 20) int before) {
        for (ByteOrder order : List.of(ByteOrder.BIG_ENDIAN, ByteOrder.LITTLE_ENDIAN)) {
            byte[] payload = ByteBuffer.allocate(before + 4)
                    .order(order)
                    .putInt(before, word)
                    .array();
            String name = order == ByteOrder.LITTLE_ENDIAN ? "little" : "big";
            assertThat(value(
                            new Field("x", before, FieldType.I32, name, null, null, null, null),
                            HexFormat.of().formatHex(payload)))
                    .isEqualTo(word);
            assertThat(value(
                            new Field("x", before, FieldType.U32, name, null, null, null, null),
                            HexFormat.of().formatHex(payload)))
                    .isEqualTo(Integer.toUnsignedLong(word));
        }
    }

    @Property
    void noPayloadAndNoFieldMakeItThrow(
            @ForAll @Size(max = 40) byte[] payload,
            @ForAll @IntRange(min = -50, max = 50) int at,
            @ForAll FieldType type) {
        ByteLayout layout = new ByteLayout(List.of(new Message(null, List.of(Field.of("x", at, type)))));
        assertThatCode(() -> layout.decode(1, payload)).doesNotThrowAnyException();
    }
}
