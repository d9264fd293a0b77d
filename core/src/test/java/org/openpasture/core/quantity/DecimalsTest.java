package org.openpasture.core.quantity;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

class DecimalsTest {
    @Test
    void numbersComeOutAsPeopleWouldWriteThem() {
        assertThat(Decimals.linear(230, 0.01, 0)).isEqualTo(2.3);
        assertThat(Decimals.linear(653, 0.1, -40)).isEqualTo(25.3);
        assertThat(Decimals.linear(3, 1 / 3.0, 0)).isEqualTo(1);
        assertThat(Decimals.linear(Double.NaN, 0.1, 1)).isNaN();
        assertThat(Decimals.linear(Double.POSITIVE_INFINITY, 0.1, 1)).isInfinite();
        assertThat(Decimals.linear(1e200, 2, 1)).isEqualTo(2e200);
    }

    @Property
    void ofDecimalsItIsTheNearestNumber(
            @ForAll @IntRange(min = -100_000, max = 100_000) int raw,
            @ForAll @IntRange(min = -9_999, max = 9_999) int scale,
            @ForAll @IntRange(min = -9_999, max = 9_999) int offset) {
        BigDecimal exact = BigDecimal.valueOf(raw, 1)
                .multiply(BigDecimal.valueOf(scale, 3))
                .add(BigDecimal.valueOf(offset, 2));
        assertThat(Decimals.linear(raw / 10.0, scale / 1000.0, offset / 100.0)).isEqualTo(exact.doubleValue());
    }

    @Test
    void digitsAreCounted() {
        assertThat(Decimals.digits(5)).isZero();
        assertThat(Decimals.digits(2.35)).isEqualTo(2);
        assertThat(Decimals.digits(Math.PI)).isEqualTo(-1);
        assertThat(Decimals.digits(1e300)).isEqualTo(-1);
    }
}
