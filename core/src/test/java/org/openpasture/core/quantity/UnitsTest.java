package org.openpasture.core.quantity;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

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

    /** UCUM codes, among themselves and to our own signs. */
    @ParameterizedTest
    @CsvSource({
        "41, [degF], Cel, 5",
        "23, Cel, °C, 23",
        "296.15, K, Cel, 23",
        "0.5, [in_i]/s, mm/s, 12.7",
        "1, [g], m/s2, 9.80665",
        "250, um, mm, 0.25",
        "1, L/min, m3/h, 0.06",
        "1, [psi], bar, 0.0689475729317",
        "10, m[H2O], kPa, 98.0665",
        "1500, /min, Hz, 25",
        "1500, {rev}/min, 1/min, 1500",
        "25, [ppm], ppm, 25",
        "3, t, kg, 3000",
        "40, ug/m3, mg/m³, 0.04",
        "2, kW.h, MJ, 7.2",
        "12, K.h, K·d, 0.5"
    })
    void codesAreConverted(double value, String from, String to, double expected) {
        assertThat(Units.convert(value, from, to).orElseThrow()).isCloseTo(expected, within(1e-9));
    }

    /** No unit, no multiple of one, of dimension one without being the same, or long enough to keep a reader busy. */
    @ParameterizedTest
    @ValueSource(
            strings = {"[pH]", "dB", "x y", "((", "°F/", "m99999", "10*99999", "{fills}", "%%", "m/", "\u0000", "C.C)"})
    void whatIsNoUnitIsNone(String code) {
        assertThat(Units.find(code)).isEmpty();
    }

    @Test
    void damagedCodesAreReadOrAreNone() {
        Random random = new Random(28);
        String signs = "mkgsKCelbar[]{}()./*%0123-+\"'";
        for (int i = 0; i < Integer.getInteger("fuzz", 8_000); i++) {
            StringBuilder code = new StringBuilder();
            for (int k = random.nextInt(12); k >= 0; k--) {
                code.append(signs.charAt(random.nextInt(signs.length())));
            }
            Units.find(code.toString()).ifPresent(unit -> assertThat(unit.numerator() / unit.denominator())
                    .as("%s", code)
                    .isFinite()
                    .isNotZero());
        }
    }

    @Test
    void whatMeasuresSomethingElseIsNot() {
        assertThat(Units.convert(1, "C", "°C")).as("coulomb").isEmpty();
        assertThat(Units.convert(1, "[ppm]", "%")).isEmpty();
        assertThat(Units.convert(1, "m/s2", "mm/s")).isEmpty();
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
