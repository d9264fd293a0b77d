package org.openpasture.core.people;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.limit.Zone;
import org.openpasture.core.notice.Recipient;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.registry.PersonUnits;
import org.openpasture.core.registry.Registry;

class DisplayUnitsTest {
    private static final DisplayUnits MINE = DisplayUnits.of("anna", Map.of("temperature", "°F", "level", "ft"));

    private static Point point(Quantity quantity, String unit) {
        return new Point("p", 1, "Milk", "s", quantity, unit, null, null, null, true);
    }

    @Test
    void aPointIsReadInTheChosenUnitWhateverItIsKeptIn() {
        Point read = MINE.shown(point(Quantity.TEMPERATURE, "°C"));
        assertThat(read.unit()).isEqualTo("°F");
        assertThat(read.decimals()).isEqualTo(1);
        assertThat(MINE.shown(point(Quantity.LEVEL, "cm")).unit()).isEqualTo("ft");
        assertThat(MINE.shown(point(Quantity.PRESSURE, "bar")).unit()).isEqualTo("bar");
    }

    /** 5 K of difference are no -450 °F, and 5 °C between flow and return are no 41 °F. */
    @Test
    void whatMayBeADifferenceIsReadAsItIsKept() {
        assertThat(MINE.shown(point(Quantity.TEMPERATURE, "K")).unit()).isEqualTo("K");
        Formula.Written difference = new Formula.Written("a - b", Map.of("a", "x", "b", "y"), null);
        Point spread = new Point(
                "p", 1, "Spread", "s", Quantity.TEMPERATURE, "°C", null, null, null, true, difference, List.of());
        assertThat(MINE.shown(spread).unit()).isEqualTo("°C");
        Point height =
                new Point("p", 1, "Height", "s", Quantity.LEVEL, "m", null, null, null, true, difference, List.of());
        assertThat(MINE.shown(height).unit()).isEqualTo("ft");
    }

    @Test
    void limitsAreReadLikeTheirPoints() {
        LimitSet cold = new LimitSet(
                "cold",
                "Milk",
                null,
                Quantity.TEMPERATURE,
                "°C",
                "",
                false,
                List.of(
                        new Zone("cold", Severity.NORMAL, null, 4.0, ""),
                        new Zone("warm", Severity.WARNING, 4.0, null, "")));
        LimitSet read = MINE.shown(cold);
        assertThat(read.unit()).isEqualTo("°F");
        assertThat(read.zones().getFirst().to()).isEqualTo(39.2);
    }

    @Test
    void whatIsNoUnitOfAQuantityIsRefusedWithThoseThereAre() {
        assertThatThrownBy(() -> DisplayUnits.of("anna", Map.of("temperature", "bar")))
                .hasMessageContaining("'bar'")
                .hasMessageContaining("°C, °F, K");
        assertThatThrownBy(() -> DisplayUnits.of("anna", Map.of("warmth", "°C")))
                .hasMessageContaining("warmth");
    }

    @Test
    void anAddressReadsInItsPersonsUnitsAndOneOfSeveralPeopleOnlyIfTheyAgree() {
        Person anna = new Person("anna", "Anna", "crew@pasture.example", false);
        Person ben = new Person("ben", "Ben", "ben@pasture.example", false);
        Person cara = new Person("cara", "Cara", "crew@pasture.example", false);
        Site site = new Site("s", "Creamery", ZoneId.of("Europe/London"), null);
        Registry two = Registry.of(List.of(site, anna, ben, MINE));
        assertThat(PersonUnits.ofReader(two, new Recipient.Mail("crew@pasture.example"))
                        .changesNothing())
                .isFalse();
        assertThat(PersonUnits.ofReader(two, new Recipient.Mail("ben@pasture.example"))
                        .changesNothing())
                .isTrue();
        assertThat(PersonUnits.ofReader(two, new Recipient.Mail("stranger@pasture.example"))
                        .changesNothing())
                .isTrue();
        Registry three = Registry.of(List.of(site, anna, ben, cara, MINE));
        assertThat(PersonUnits.ofReader(three, new Recipient.Mail("crew@pasture.example"))
                        .changesNothing())
                .isTrue();
    }
}
