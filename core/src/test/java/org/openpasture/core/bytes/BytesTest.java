package org.openpasture.core.bytes;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.ByteOrder;
import org.junit.jupiter.api.Test;

class BytesTest {
    private static final byte[] BYTES = {0x01, (byte) 0xFE, 0x00, (byte) 0x80};

    @Test
    void aNumberIsReadInEitherOrderAndWithoutASign() {
        assertThat(Bytes.big(BYTES, 0, 2)).isEqualTo(0x01FE);
        assertThat(Bytes.little(BYTES, 0, 2)).isEqualTo(0xFE01);
        assertThat(Bytes.little(BYTES, 1, 3)).isEqualTo(0x8000FE);
        assertThat(Bytes.number(BYTES, 0, 4, ByteOrder.LITTLE_ENDIAN)).isEqualTo(0x8000FE01L);
        assertThat(Bytes.number(BYTES, 3, 0, ByteOrder.BIG_ENDIAN)).isZero();
    }

    @Test
    void anOrderIsBigOrLittleAndBigWhereNothingIsSaid() {
        assertThat(Bytes.order(null)).isEqualTo(ByteOrder.BIG_ENDIAN);
        assertThat(Bytes.order("little")).isEqualTo(ByteOrder.LITTLE_ENDIAN);
        assertThatThrownBy(() -> Bytes.requireOrder("field 'x'", "middle"))
                .hasMessage("field 'x': order is big or little, not 'middle'");
    }
}
