package org.openpasture.core.layout;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.ByteBuffer;
import java.util.HexFormat;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.json.JsonMapper;

class RegisterLayoutTest {
    private static byte[] image(RegisterTable table, int from, String hex) {
        return new RegisterImage(List.of(
                        new RegisterImage.Block(table, from, HexFormat.of().parseHex(hex.replace(" ", "")))))
                .toBytes();
    }

    private static RegisterLayout layout(RegisterField... fields) {
        return new RegisterLayout(List.of(fields), null);
    }

    private static double read(RegisterField field, String hex) {
        return ((Decoding.Decoded) layout(field).decode(0, image(RegisterTable.HOLDING, field.at(), hex)))
                .values()
                .getFirst()
                .value();
    }

    /** The four ways in which two words of two bytes are sent, for 123456.0 as a 32-bit float, 0x47F12000. */
    @ParameterizedTest
    @CsvSource({
        "47f1 2000, high-first, big",
        "2000 47f1, low-first, big",
        "f147 0020, high-first, little",
        "0020 f147, low-first, little"
    })
    void wordsAndBytesMayComeInEitherOrder(String hex, String words, String order) {
        assertThat(read(
                        new RegisterField(
                                "x", null, 7, FieldType.F32, words, order, null, null, null, null, null, null),
                        hex))
                .isEqualTo(123_456.0);
    }

    @ParameterizedTest
    @CsvSource({
        "u16, ffff, 65535",
        "i16, fffe, -2",
        "u32, 0001 0000, 65536",
        "i32, ffff fffd, -3",
        "u64, 8000 0000 0000 0000, 9223372036854775808",
        "i64, ffff ffff ffff ffff, -1",
        "f64, 3ff8 0000 0000 0000, 1.5",
        "bcd16, 1234, 1234",
        "bcd32, 0012 3456, 123456"
    })
    void readsTheNumbersThatMetersHave(String type, String hex, double number) {
        assertThat(read(RegisterField.of("x", 100, FieldType.of(type)), hex)).isEqualTo(number);
    }

    @Test
    void scalesTakesBitsAndKnowsWhatMeansNothing() {
        assertThat(read(
                        new RegisterField(
                                "x", null, 0, null, null, null, new Field.Bits(4, 4), null, null, null, null, null),
                        "00a0"))
                .isEqualTo(10);
        RegisterField gone =
                new RegisterField("x", null, 0, FieldType.I16, null, null, null, 0.1, -40.0, -32_768.0, null, null);
        assertThat(read(gone, "01f4")).isEqualTo(10);
        assertThat(((Decoding.Decoded) layout(gone).decode(0, image(RegisterTable.HOLDING, 0, "8000"))).values())
                .isEmpty();
        assertThat(read(RegisterField.of("x", 0, FieldType.BCD16), "12ab"))
                .as("no decimal digits")
                .isNaN();
    }

    @Test
    void neighboursAreReadTogetherAsFarAsARequestReaches() {
        RegisterLayout layout = layout(
                RegisterField.of("a", 0, FieldType.U32),
                RegisterField.of("b", 10, FieldType.U16),
                RegisterField.of("c", 20, FieldType.U16),
                new RegisterField("d", RegisterTable.COIL, 3, null, null, null, null, null, null, null, null, null),
                new RegisterField("e", RegisterTable.COIL, 5, null, null, null, null, null, null, null, null, null));
        assertThat(layout.requests())
                .containsExactly(
                        new RegisterLayout.Request(RegisterTable.COIL, 3, 3),
                        new RegisterLayout.Request(RegisterTable.HOLDING, 0, 11),
                        new RegisterLayout.Request(RegisterTable.HOLDING, 20, 1));
        assertThat(new RegisterLayout(layout.fields(), 0).requests()).hasSize(5);
        assertThat(layout(
                                RegisterField.of("a", 0, FieldType.U16),
                                new RegisterField("b", null, 8, null, null, null, null, null, null, null, null, null),
                                RegisterField.of("c", 16, FieldType.U16),
                                RegisterField.of("d", 124, FieldType.U32))
                        .requests())
                .last()
                .isEqualTo(new RegisterLayout.Request(RegisterTable.HOLDING, 124, 2));
    }

    @Test
    void whatWasNotReadIsNoValueAndNothingAtAllIsRefused() {
        RegisterLayout layout =
                layout(RegisterField.of("a", 0, FieldType.U16), RegisterField.of("b", 300, FieldType.U16));
        assertThat(layout.decode(0, image(RegisterTable.HOLDING, 0, "0007")))
                .isEqualTo(new Decoding.Decoded(List.of(new ChannelValue("a", 7))));
        assertThat(layout.decode(0, image(RegisterTable.INPUT, 0, "0007")))
                .isEqualTo(new Decoding.Refused("none of the registers of this model was read"));
        assertThat(layout.parts(0, image(RegisterTable.HOLDING, 0, "0007")))
                .containsExactly(new Layout.Part("a", 5, 7));
    }

    private static RegisterField settable(FieldType type, String order, Field.Bits bits, Double scale) {
        return new RegisterField("x", null, 4, type, null, order, bits, scale, null, null, null, true);
    }

    @Test
    void aPartOfARegisterIsSetWithoutTheRest() {
        RegisterLayout.Write write =
                layout(settable(null, null, new Field.Bits(4, 2), null)).write("x", 2);
        assertThat(write).isEqualTo(new RegisterLayout.Write.Part(4, 0xFFCF, 0x0020));
        assertThat(((RegisterLayout.Write.Part) write).of(0xABFF).data())
                .as("its bits 4 and 5 are 10 now")
                .containsExactly(0xAB, 0xEF);
        assertThat(layout(settable(null, "little", new Field.Bits(0, 1), null)).write("x", 1))
                .isEqualTo(new RegisterLayout.Write.Part(4, 0xFEFF, 0x0100));
        assertThat(layout(settable(null, null, new Field.Bits(8, 8), 0.5)).write("x", 40))
                .isEqualTo(new RegisterLayout.Write.Part(4, 0x00FF, 80 << 8));
        assertThatThrownBy(() ->
                        layout(settable(null, null, new Field.Bits(4, 2), null)).write("x", 4))
                .hasMessage("4.0 does not fit into 2 bits");
        assertThatThrownBy(() ->
                        layout(settable(null, null, new Field.Bits(4, 1), null)).write("x", Double.NaN))
                .hasMessage("NaN does not fit into 1 bit");
        assertThatThrownBy(() -> layout(settable(FieldType.U32, null, new Field.Bits(4, 1), null))
                        .write("x", 1))
                .hasMessageContaining("over 2 registers");
        assertThatThrownBy(() -> layout(settable(null, null, new Field.Bits(12, 8), null))
                        .write("x", 1))
                .hasMessageContaining("has bits that its register has not");
    }

    /** What is set is what is read back, whatever the order of bytes, and the rest of the register stays. */
    @Property(tries = 300)
    void aPartComesBackFromItsRegister(
            @ForAll @IntRange(max = 65_535) int before,
            @ForAll @IntRange(max = 11) int from,
            @ForAll @IntRange(max = 31) int value,
            @ForAll boolean little) {
        RegisterLayout layout = layout(settable(null, little ? "little" : null, new Field.Bits(from, 5), null));
        byte[] after = ((RegisterLayout.Write.Part) layout.write("x", value))
                .of(before)
                .data();
        assertThat(read(layout.fields().getFirst(), HexFormat.of().formatHex(after)))
                .isEqualTo(value);
        int mask = 0b11111 << from;
        int kept = little ? (mask & 0xFF) << 8 | mask >>> 8 : mask;
        assertThat(((after[0] & 0xFF) << 8 | after[1] & 0xFF) & ~kept).isEqualTo(before & ~kept & 0xFFFF);
    }

    @Test
    void whatCannotBeIsSaidInWords() {
        assertThatThrownBy(() -> RegisterField.of("x", 70_000, FieldType.U16))
                .hasMessageContaining("registers are 0 to 65535");
        assertThatThrownBy(() -> RegisterField.of("x", 0, FieldType.U8)).hasMessageContaining("a register has 16 bits");
        assertThatThrownBy(() ->
                        new RegisterField("x", null, 0, null, "middle-first", null, null, null, null, null, null, null))
                .hasMessageContaining("high-first or low-first");
        assertThatThrownBy(() -> RegisterTable.of("flash")).hasMessageContaining("coil, discrete, holding, input");
    }

    @Test
    void isReadFromJson() {
        assertThat(JsonMapper.shared().readValue("""
        {"format": "registers", "fields": [{"channel": "flow", "at": 20, "type": "f32", "words": "low-first"}]}""", Layout.class))
                .isEqualTo(layout(new RegisterField(
                        "flow", null, 20, FieldType.F32, "low-first", null, null, null, null, null, null, null)));
    }

    @Property(tries = 300)
    void aNumberComesBackFromItsRegisters(@ForAll double number, @ForAll boolean lowFirst, @ForAll boolean little) {
        byte[] bytes = ByteBuffer.allocate(8).putDouble(number).array();
        RegisterField field = new RegisterField(
                "x",
                null,
                0,
                FieldType.F64,
                lowFirst ? "low-first" : null,
                little ? "little" : null,
                null,
                null,
                null,
                null,
                null,
                null);
        byte[] sent = field.inOrder(bytes);
        assertThat(field.inOrder(sent)).isEqualTo(bytes);
        assertThat(read(field, HexFormat.of().formatHex(sent))).isEqualTo(number);
    }

    @Property(tries = 500)
    void anyBytesAreReadOrRefused(@ForAll byte[] noise) {
        RegisterLayout layout = layout(
                RegisterField.of("a", 0, FieldType.U32),
                new RegisterField("d", RegisterTable.COIL, 0, null, null, null, null, null, null, null, null, null));
        assertThat(layout.decode(0, noise)).isNotNull();
        assertThat(layout.parts(0, noise))
                .allSatisfy(part -> assertThat(part.until()).isLessThanOrEqualTo(noise.length));
    }
}
