package org.openpasture.core.people;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.quantity.UnitChange;
import org.openpasture.core.quantity.UnitSystem;

/**
 * The units in which a person reads values. What is kept, judged and handed to other programs stays in the unit of its
 * point.
 *
 * @param id of the person
 * @param chosen one unit for each quantity that is not read as it is kept
 */
public record DisplayUnits(String id, List<Chosen> chosen) implements Entity {
    private static final String KELVIN = "K";

    public DisplayUnits {
        chosen = chosen == null ? List.of() : List.copyOf(chosen);
        if (chosen.stream().map(Chosen::quantity).distinct().count() < chosen.size()) {
            throw new IllegalArgumentException("a quantity has two units");
        }
    }

    /** The unit in which a quantity is read. */
    public record Chosen(Quantity quantity, String unit) {
        public Chosen {
            if (!UnitSystem.choices(quantity).contains(unit)) {
                throw new IllegalArgumentException("'" + unit + "' is no unit for " + quantity.title()
                        + "; choose one of " + String.join(", ", UnitSystem.choices(quantity)));
            }
        }
    }

    /** Of somebody who has chosen nothing. */
    public static DisplayUnits asKept(String personId) {
        return new DisplayUnits(personId, List.of());
    }

    /**
     * Units by the ids of their quantities.
     *
     * @throws IllegalArgumentException naming the quantities, or the units of one, that there are
     */
    public static DisplayUnits of(String personId, Map<String, String> units) {
        return new DisplayUnits(
                personId,
                new TreeMap<>(units)
                        .entrySet().stream()
                                .map(one -> new Chosen(Quantity.of(one.getKey()), one.getValue()))
                                .toList());
    }

    /** How values of a quantity in a unit are shown. What is kept in kelvin is mostly a difference, and stays so. */
    public UnitChange change(Quantity quantity, String unit) {
        return chosen.stream()
                .filter(one -> one.quantity() == quantity)
                .findFirst()
                .flatMap(one -> UnitChange.between(unit, one.unit()))
                .filter(change -> change.offset() == 0 || !unit.equals(KELVIN))
                .orElseGet(() -> UnitChange.none(unit));
    }

    /**
     * How a point's values are shown. Nobody knows whether a formula that somebody wrote gives a temperature or a
     * difference of two, and words stand for the values that are kept: these points are read as they are kept.
     */
    public UnitChange change(Point point) {
        UnitChange change = change(point.quantity(), point.unit());
        boolean unclear = change.offset() != 0 && point.formula() instanceof Formula.Written
                || !point.shown().words().isEmpty();
        return unclear ? UnitChange.none(point.unit()) : change;
    }

    /** A point as this person reads it. */
    public Point shown(Point point) {
        return point.in(change(point));
    }

    /** Limits with their bounds as this person reads them. */
    public LimitSet shown(LimitSet limits) {
        return limits.in(change(limits.quantity(), limits.unit()).to()).orElse(limits);
    }

    /** Whether everything is read as it is kept. */
    public boolean changesNothing() {
        return chosen.isEmpty();
    }
}
