package org.openpasture.core.fleet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.HexFormat;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.openpasture.core.layout.FieldType;

class SettingAndPowerTest {
    private static final Power PENCILS = new Power(Power.Chemistry.LITHIUM_THIONYL_CHLORIDE, 1, 2_600.0, 12.0, 20.0);

    private static DeviceSetting setting(String prefix, FieldType type, String order, Double scale) {
        return new DeviceSetting(
                "interval", "Report interval", "s", -50, 100_000, 10, prefix, type, order, scale, null, true, null);
    }

    @ParameterizedTest
    @CsvSource({
        "01, u16, big, 1, 30, 01001e",
        "01, u16, little, 1, 30, 011e00",
        "'', u24, big, 1, 1200, 0004b0",
        "a00f, i16, big, 0.1, -2.5, a00fffe7",
        "'', u8, big, 60, 1800, 1e",
        "'', f32, big, 1, 0.5, 3f000000"
    })
    void aValueIsWrittenAsTheDeviceWantsIt(
            String prefix, String type, String order, double scale, double value, String bytes) {
        assertThat(HexFormat.of()
                        .formatHex(setting(prefix, FieldType.of(type), order, scale)
                                .encode(value)))
                .isEqualTo(bytes);
    }

    @Test
    void aValueThatDoesNotFitIsRefusedInWords() {
        assertThatThrownBy(() -> setting("", FieldType.U8, null, null).encode(256))
                .hasMessage("256.0 does not fit into u8");
        assertThatThrownBy(() -> setting("", FieldType.U16, null, null).encode(-1))
                .hasMessageContaining("does not fit");
        assertThatThrownBy(() -> setting("", FieldType.U32, null, null).encode(200_000))
                .hasMessage("Report interval is -50 to 100000 s, not 200000");
        assertThatThrownBy(() -> setting("", FieldType.U32, null, null).encode(Double.NaN))
                .isInstanceOf(IllegalArgumentException.class);
    }

    @ParameterizedTest
    @CsvSource({
        "lithium-thionyl-chloride, 1, 3.65, 100",
        "lithium-thionyl-chloride, 1, 3.475, 42.5",
        "alkaline, 2, 2.6, 55",
        "lead-acid, 6, 12.0, 36",
        "lithium-ion, 1, 2.5, 0",
        "alkaline, 1, 9, 100"
    })
    void aVoltageIsAShareOfWhatThatKindOfCellHolds(String chemistry, int cells, double volts, double percent) {
        Power power = new Power(Power.Chemistry.of(chemistry), cells, null, null, null);
        assertThat(power.percent(volts))
                .hasValueSatisfying(share -> assertThat(share).isCloseTo(percent, within(0.01)));
    }

    @Property
    void moreVoltsAreNeverLess(
            @ForAll @DoubleRange(min = 0, max = 5) double a, @ForAll @DoubleRange(min = 0, max = 5) double b) {
        for (Power.Chemistry chemistry : Power.Chemistry.values()) {
            if (chemistry != Power.Chemistry.MAINS) {
                Power power = new Power(chemistry, 1, null, null, null);
                assertThat(power.percent(Math.max(a, b)).orElseThrow())
                        .isBetween(power.percent(Math.min(a, b)).orElseThrow(), 100.0);
            }
        }
    }

    /** 2600 mAh; 12 µA at rest; 20 µAh a report: every 20 minutes 72 µAh an hour, every 30 seconds 2412. */
    @Test
    void aShortIntervalCostsMonths() {
        assertThat(PENCILS.monthsLeft(100, 1_200))
                .hasValueSatisfying(months -> assertThat(months).isCloseTo(2_600_000 / 72.0 / 730.5, within(1e-9)));
        assertThat(PENCILS.monthsLeft(100, 30))
                .hasValueSatisfying(months -> assertThat(months).isCloseTo(1.476, within(0.001)));
        assertThat(PENCILS.monthsLeft(50, 30).orElseThrow())
                .isCloseTo(PENCILS.monthsLeft(100, 30).orElseThrow() / 2, within(1e-9));
        assertThat(new Power(Power.Chemistry.MAINS, null, null, null, null).monthsLeft(100, 30))
                .isEmpty();
        assertThat(new Power(Power.Chemistry.ALKALINE, 2, 2_000.0, null, null).monthsLeft(100, 30))
                .as("too little is known")
                .isEmpty();
    }
}
