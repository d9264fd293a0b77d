package org.openpasture.core.limit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.openpasture.core.quantity.Quantity;

class LimitSetTest {
    private static final LimitSet PUMP = new LimitSet(
            "p",
            "pump",
            new Source("ISO 10816-7", "2009", ""),
            Quantity.VIBRATION_VELOCITY,
            "mm/s",
            "pumps",
            true,
            List.of(
                    zone("A", Severity.NORMAL, null, 3.2),
                    zone("B", Severity.NORMAL, 3.2, 5.1),
                    zone("C", Severity.WARNING, 5.1, 8.5),
                    zone("D", Severity.CRITICAL, 8.5, null)));
    private static final LimitSet FRIDGE = new LimitSet(
            "f",
            "fridge",
            new Source("WHO", "", ""),
            Quantity.TEMPERATURE,
            "°C",
            "fridges",
            true,
            List.of(
                    zone("cold", Severity.CRITICAL, null, 2.0),
                    zone("kept", Severity.NORMAL, 2.0, 8.0),
                    zone("over", Severity.WARNING, 8.0, null)));

    private static Zone zone(String label, Severity severity, @Nullable Double from, @Nullable Double to) {
        return new Zone(label, severity, from, to, label);
    }

    @Test
    void aValueOnABoundaryBelongsToTheLessSevereZone() {
        assertThat(PUMP.zoneOf(5.1).label()).isEqualTo("B");
        assertThat(PUMP.zoneOf(Math.nextUp(5.1)).label()).isEqualTo("C");
        assertThat(FRIDGE.zoneOf(2).label()).isEqualTo("kept");
        assertThat(FRIDGE.zoneOf(Math.nextDown(2)).label()).isEqualTo("cold");
    }

    @Test
    void headroomIsTheWayThatIsLeftToTheNextWorseZone() {
        Judgement calm = PUMP.judge(2.55, null);
        assertThat(calm.headroomPercent()).isEqualTo(50, within(1e-9));
        assertThat(calm.next()).isEqualTo(new Boundary(5.1, Severity.WARNING, "C"));
        Judgement inC = PUMP.judge(6.8, null);
        assertThat(inC.severity()).isEqualTo(Severity.WARNING);
        assertThat(inC.headroomPercent()).isEqualTo(20, within(1e-9));
    }

    @Test
    void headroomCountsFromTheBaselineIfThereIsOne() {
        assertThat(PUMP.judge(4.1, 3.1).headroomPercent()).isEqualTo(50, within(1e-9));
    }

    @Test
    void ofTwoSidesTheNearerCounts() {
        assertThat(FRIDGE.judge(5, null).headroomPercent()).isEqualTo(100, within(1e-9));
        assertThat(FRIDGE.judge(3.5, null).headroomPercent()).isEqualTo(50, within(1e-9));
        assertThat(FRIDGE.judge(3.5, null).next()).isEqualTo(new Boundary(2, Severity.CRITICAL, "cold"));
        assertThat(FRIDGE.judge(7.7, null).next()).isEqualTo(new Boundary(8, Severity.WARNING, "over"));
    }

    @Test
    void inTheWorstZoneNothingIsLeft() {
        Judgement worst = PUMP.judge(40, null);
        assertThat(worst.headroomPercent()).isZero();
        assertThat(worst.next()).isNull();
    }

    @Test
    void theWorseOfTwoDecides() {
        assertThat(PUMP.judge(6, null).worse(PUMP.judge(2, null)).zone()).isEqualTo("C");
        assertThat(PUMP.judge(2, null).worse(PUMP.judge(3, null)).headroomPercent())
                .isEqualTo(PUMP.judge(3, null).headroomPercent());
    }

    @Test
    void zonesWithAGapAreRefused() {
        assertThatThrownBy(() -> new LimitSet(
                        "x",
                        "broken",
                        new Source("", "", ""),
                        Quantity.LEVEL,
                        "m",
                        "",
                        false,
                        List.of(zone("low", Severity.NORMAL, null, 1.0), zone("high", Severity.WARNING, 2.0, null))))
                .hasMessage("limit set 'broken': zone high must begin where zone low ends");
        assertThatThrownBy(() -> new LimitSet(
                        "x",
                        "broken",
                        new Source("", "", ""),
                        Quantity.LEVEL,
                        "m",
                        "",
                        false,
                        List.of(zone("low", Severity.NORMAL, 0.0, null))))
                .hasMessageContaining("open to the outside");
    }

    /** Further up never gets better, and headroom shrinks on the way. */
    @Property
    void upwardsItOnlyGetsWorse(
            @ForAll @DoubleRange(min = 0, max = 20) double a, @ForAll @DoubleRange(min = 0, max = 20) double b) {
        Judgement low = PUMP.judge(Math.min(a, b), null);
        Judgement high = PUMP.judge(Math.max(a, b), null);
        assertThat(high.severity()).isGreaterThanOrEqualTo(low.severity());
        if (high.severity() == low.severity()) {
            assertThat(high.headroomPercent()).isLessThanOrEqualTo(low.headroomPercent());
        }
        assertThat(low.headroomPercent()).isBetween(0.0, 100.0);
    }

    /** "72 to 79 mild to moderate": the bound belongs to the zone that it begins. */
    @Test
    void aZoneThatBeginsFromItsBoundHoldsIt() {
        LimitSet cattle = LimitLibrary.shipped().stream()
                .filter(set -> set.id().equals("cattle-heat-index"))
                .findFirst()
                .orElseThrow();
        assertThat(cattle.zoneOf(72.0).label()).isEqualTo("mild to moderate");
        assertThat(cattle.zoneOf(71.99).label()).isEqualTo("threshold");
        assertThat(FRIDGE.zoneOf(8.0).severity()).as("at most").isEqualTo(Severity.NORMAL);
    }

    @Test
    void aFreezerWellBelowItsLimitHasHeadroom() {
        LimitSet freezer = new LimitSet(
                "f",
                "Deep-frozen",
                FRIDGE.source(),
                Quantity.TEMPERATURE,
                "°C",
                "",
                false,
                List.of(
                        new Zone("kept", Severity.NORMAL, null, -18.0, ""),
                        new Zone("over", Severity.CRITICAL, -18.0, null, "")));
        assertThat(freezer.judge(-25, null).headroomPercent()).isCloseTo(100 * 7.0 / 18, within(1e-9));
        assertThat(freezer.judge(-40, null).headroomPercent()).isEqualTo(100);
        assertThat(freezer.judge(-18, null).headroomPercent()).isZero();
    }

    @Test
    void aDeadBandMayBeHalfOfWhatLiesBetweenLimits() {
        assertThat(PUMP.widestDeadBand(Severity.WARNING))
                .as("only limits above")
                .isInfinite();
        LimitSet vaccines = LimitLibrary.shipped().stream()
                .filter(set -> set.id().equals("vaccines"))
                .findFirst()
                .orElseThrow();
        assertThat(vaccines.widestDeadBand(Severity.CRITICAL)).isEqualTo(3);
    }

    /** 40 °F are 4.4 °C, which a cold store may have. */
    @Test
    void limitsAreHeldAgainstValuesInTheirUnit() {
        assertThat(FRIDGE.in("°F").orElseThrow().zoneOf(40).severity()).isEqualTo(Severity.NORMAL);
        assertThat(FRIDGE.in("°F").orElseThrow().zoneOf(47).severity()).isNotEqualTo(Severity.NORMAL);
        assertThat(FRIDGE.in("%")).isEmpty();
        assertThat(PUMP.in("in/s").orElseThrow().judge(0.5, null).zone()).isEqualTo("D");
    }
}
