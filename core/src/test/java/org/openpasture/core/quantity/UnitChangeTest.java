package org.openpasture.core.quantity;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** Figures of NIST SP 811. */
class UnitChangeTest {
    @ParameterizedTest
    @CsvSource({
        "°C, °F, 4, 39.2, 1, 1",
        "mm/s, in/s, 12.7, 0.5, 2, 3",
        "m, ft, 3.048, 10, 2, 2",
        "bar, psi, 1, 14.5037737730, 2, 1",
        "hPa, inHg, 1013.25, 29.9212524, 1, 2",
        "m/s², gₙ, 9.80665, 1, 2, 3",
        "m³, gal, 1, 264.172052358, 2, 0"
    })
    void aValueIsReadWithAsManyDigitsAsItSays(
            String from, String to, double kept, double read, int decimals, int readDecimals) {
        UnitChange change = UnitChange.between(from, to).orElseThrow();
        assertThat(change.of(kept)).isCloseTo(read, within(1e-6));
        assertThat(change.of(new double[] {kept})).containsExactly(change.of(kept));
        assertThat(kept * change.factor() + change.offset()).isCloseTo(read, within(1e-6));
        assertThat(change.decimals(decimals)).isEqualTo(readDecimals);
    }

    @Test
    void aDifferenceOfTemperaturesHasNoZeroOfItsOwn() {
        assertThat(5 * UnitChange.between("°C", "°F").orElseThrow().factor()).isCloseTo(9, within(1e-9));
    }

    @Test
    void unitsOfOtherQuantitiesAreNoWay() {
        assertThat(UnitChange.between("°C", "bar")).isEmpty();
        assertThat(UnitChange.between("°C", "no unit")).isEmpty();
    }

    /** Whatever can be chosen leads there and back, from every unit that values of the quantity are kept in. */
    @ParameterizedTest
    @EnumSource(Quantity.class)
    void everyChoiceLeadsThereAndBack(Quantity quantity) {
        Random random = new Random(7);
        assertThat(UnitSystem.choices(quantity).getFirst()).isEqualTo(quantity.unit());
        assertThat(UnitSystem.choices(quantity)).contains(UnitSystem.IMPERIAL.unit(quantity));
        for (String to : UnitSystem.choices(quantity)) {
            for (String from : Units.alike(to)) {
                double kept = (random.nextDouble() - 0.5) * 1_000;
                UnitChange there = UnitChange.between(from, to).orElseThrow();
                UnitChange back = UnitChange.between(to, from).orElseThrow();
                assertThat(back.of(there.of(kept))).isCloseTo(kept, within(Math.max(1, Math.abs(kept)) * 1e-6));
            }
        }
    }
}
