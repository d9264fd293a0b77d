package org.openpasture.core.quantity;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

class QuantityTest {
    @ParameterizedTest
    @CsvSource({
        "temperature, -273.15, true",
        "temperature, -274, false",
        "humidity, 100, true",
        "humidity, 100.1, false",
        "humidity, -0.1, false",
        "vibration-velocity, 0, true",
        "vibration-velocity, -1, false",
        "switch, 2, false",
        "temperature, NaN, false",
        "other, Infinity, false"
    })
    void knowsWhatCannotBe(String quantity, double value, boolean physical) {
        assertThat(Quantity.of(quantity).isPhysical(value)).isEqualTo(physical);
    }

    @ParameterizedTest
    @EnumSource
    void isFoundByItsId(Quantity quantity) {
        assertThat(Quantity.of(quantity.id())).isSameAs(quantity);
        assertThat(quantity.lowest()).isLessThan(quantity.highest());
        assertThat(quantity.title()).isNotBlank();
    }

    @Test
    void namesTheIdsThereAre() {
        assertThatThrownBy(() -> Quantity.of("wetness"))
                .hasMessageStartingWith("no quantity 'wetness'; there are vibration-velocity, temperature");
    }
}
