package org.openpasture.core.quantity;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** Figures of NIST SP 811. */
class UnitsTest {
    @ParameterizedTest
    @CsvSource({
        "41, °F, °C, 5",
        "8, °C, °F, 46.4",
        "-40, °F, °C, -40",
        "296.15, K, °C, 23",
        "0.5, in/s, mm/s, 12.7",
        "1, psi, bar, 0.0689475729317",
        "100, kPa, bar, 1",
        "36, km/h, m/s, 10",
        "10, kn, m/s, 5.14444444444",
        "1, l/s, m³/h, 3.6",
        "1500, 1/min, Hz, 25",
        "12, in, m, 0.3048"
    })
    void valuesAreConverted(double value, String from, String to, double expected) {
        assertThat(Units.convert(value, from, to).orElseThrow()).isCloseTo(expected, within(1e-9));
    }

    @Test
    void whatMeasuresSomethingElseIsNot() {
        assertThat(Units.convert(1, "%", "°C")).isEmpty();
        assertThat(Units.convert(1, "bar", "mm/s")).isEmpty();
        assertThat(Units.convert(1, "furlong", "m")).isEmpty();
        assertThat(Units.convert(1, "furlong", "furlong")).hasValue(1);
    }

    @Test
    void aDifferenceHasNoOffset() {
        assertThat(Units.convertDifference(1, "K", "°F").orElseThrow()).isCloseTo(1.8, within(1e-9));
    }

    /** A quantity whose own unit nobody knows could not be compared with anything. */
    @ParameterizedTest
    @EnumSource(Quantity.class)
    void theUnitOfEachQuantityIsKnown(Quantity quantity) {
        assertThat(Units.find(quantity.unit())).isPresent();
    }
}
