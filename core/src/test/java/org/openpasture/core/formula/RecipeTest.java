package org.openpasture.core.formula;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.openpasture.core.quantity.Quantity;

class RecipeTest {
    private static double of(Recipe recipe, Quantity result, double[] in, double... parameters) {
        return recipe.value(in, parameters, result);
    }

    private static double of(Recipe recipe, double... in) {
        return of(recipe, recipe.results().getFirst(), in);
    }

    /** Dew point and vapour pressure from the tables of FAO 56, annex 2; wet bulb from the example of Stull (2011). */
    @Test
    void airIsAsInTheTables() {
        assertThat(of(Recipe.DEW_POINT, 25, 50)).isCloseTo(13.86, within(0.01));
        assertThat(of(Recipe.DEW_POINT, 25, 100)).isCloseTo(25, within(1e-9));
        assertThat(of(Recipe.VAPOUR_PRESSURE_DEFICIT, 25, 0)).isCloseTo(3.168, within(0.001));
        assertThat(of(Recipe.VAPOUR_PRESSURE_DEFICIT, 15, 50)).isCloseTo(1.705 / 2, within(0.001));
        assertThat(of(Recipe.WET_BULB, 20, 50)).isCloseTo(13.7, within(0.05));
        assertThat(of(Recipe.ABSOLUTE_HUMIDITY, 25, 100)).isCloseTo(23.0, within(0.05));
        assertThat(of(Recipe.HEAT_INDEX, 30, 70)).isCloseTo(81.38, within(0.005));
    }

    @Test
    void whereAFormulaDoesNotHoldThereIsNoValue() {
        assertThat(of(Recipe.DEW_POINT, 20, 0)).isNaN();
        assertThat(of(Recipe.WET_BULB, 60, 50)).isNaN();
        assertThat(of(Recipe.WET_BULB, 20, 3)).isNaN();
    }

    /** ISO 2533, table 1, by geometric height; the formula's is geopotential, which differs by 1.4 m at 3,000 m. */
    @ParameterizedTest
    @CsvSource({"1013.25, 0", "954.61, 500", "898.76, 1000", "701.21, 3000"})
    void heightFollowsFromPressureAndBack(double hectopascal, double metres) {
        assertThat(of(Recipe.ALTITUDE, Quantity.ALTITUDE, new double[] {hectopascal}, 1013.25))
                .isCloseTo(metres, within(1.5));
        assertThat(of(Recipe.SEA_LEVEL_PRESSURE, Quantity.AIR_PRESSURE, new double[] {hectopascal}, metres))
                .isCloseTo(1013.25, within(0.2));
    }

    @Test
    void tenMetresOfWaterAreAboutABar() {
        assertThat(of(Recipe.HYDROSTATIC_LEVEL, Quantity.LEVEL, new double[] {0.980665}, 1000))
                .isCloseTo(10, within(1e-9));
        assertThat(of(Recipe.LAYER, 1.7, 1.2)).isCloseTo(0.5, within(1e-12));
        assertThat(of(Recipe.LAYER, 1.2, 1.7)).isZero();
    }

    @Test
    void aTankIsFullAtItsTopAndHalfInItsMiddle() {
        double[] top = {2};
        double[] middle = {1};
        assertThat(of(Recipe.TANK_LYING, Quantity.VOLUME, top, 2, 5, 0)).isCloseTo(Math.PI * 5, within(1e-9));
        assertThat(of(Recipe.TANK_LYING, Quantity.VOLUME, middle, 2, 5, 0)).isCloseTo(Math.PI * 2.5, within(1e-9));
        // Ends that are half spheres make a sphere together.
        assertThat(of(Recipe.TANK_LYING, Quantity.VOLUME, top, 2, 5, 1))
                .isCloseTo(Math.PI * 5 + 4 * Math.PI / 3, within(1e-9));
        assertThat(of(Recipe.TANK_SPHERE, Quantity.FILL, middle, 2)).isCloseTo(50, within(1e-9));
        assertThat(of(Recipe.TANK_CONE, Quantity.VOLUME, new double[] {3}, 2, 1, 3))
                .isCloseTo(Math.PI * (1.0 / 3 + 2), within(1e-9));
        assertThat(of(Recipe.TANK_BOX, Quantity.FILL, new double[] {0.5}, 4, 2, 2))
                .isCloseTo(25, within(1e-9));
        assertThat(of(Recipe.TANK_UPRIGHT, Quantity.VOLUME, new double[] {9}, 2, 3))
                .as("what is above the top is not in it")
                .isCloseTo(Math.PI * 3, within(1e-9));
    }

    @Property
    void moreLevelIsNeverLessVolume(
            @ForAll @DoubleRange(min = -0.5, max = 3.5) double one,
            @ForAll @DoubleRange(min = -0.5, max = 3.5) double other,
            @ForAll @DoubleRange(min = 0.1, max = 2.9) double size) {
        double[] low = {Math.min(one, other)};
        double[] high = {Math.max(one, other)};
        for (Recipe tank : new Recipe[] {Recipe.TANK_LYING, Recipe.TANK_CONE, Recipe.TANK_SPHERE}) {
            double[] parameters =
                    switch (tank) {
                        case TANK_LYING -> new double[] {3, 2, size};
                        case TANK_CONE -> new double[] {2, size, 3};
                        default -> new double[] {3};
                    };
            assertThat(of(tank, Quantity.FILL, high, parameters))
                    .as(tank.id())
                    .isGreaterThanOrEqualTo(of(tank, Quantity.FILL, low, parameters) - 1e-9)
                    .isBetween(-1e-9, 100 + 1e-9);
        }
    }
}
