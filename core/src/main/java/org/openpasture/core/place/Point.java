package org.openpasture.core.place;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.quantity.Averaging;
import org.openpasture.core.quantity.Decimals;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.quantity.UnitChange;
import org.openpasture.core.quantity.Units;

/**
 * A measuring point: one named quantity of a place. It is what people see, and it outlives the devices behind it.
 *
 * @param number small and never used again: the key in the record store and the number on the label
 * @param placeId the site, area or asset it belongs to
 * @param limitSet the id of a limit set that holds for this point instead of its asset's; null to inherit
 * @param direction for vibration, the axis as people call it ("axial"); points of one asset and quantity with different
 *     directions are shown side by side
 * @param released whether people without the right to edit may see it
 * @param formula by which its readings follow from those of other points; null if it is measured
 * @param tags by which selections find it, see {@link Tags}
 * @param shown how its values are written; null in records from before this was kept, and read as usual
 */
public record Point(
        String id,
        int number,
        String name,
        String placeId,
        Quantity quantity,
        String unit,
        @Nullable String limitSet,
        @Nullable String direction,
        @Nullable String note,
        boolean released,
        @Nullable Formula formula,
        List<String> tags,
        @Nullable Shown shown)
        implements Entity {
    private static final int MOST_DIGITS = 9;

    public Point {
        tags = tags == null ? List.of() : List.copyOf(tags);
        shown = shown == null ? Shown.USUAL : shown;
    }

    /** One that is shown as usual. */
    public Point(
            String id,
            int number,
            String name,
            String placeId,
            Quantity quantity,
            String unit,
            @Nullable String limitSet,
            @Nullable String direction,
            @Nullable String note,
            boolean released,
            @Nullable Formula formula,
            List<String> tags) {
        this(id, number, name, placeId, quantity, unit, limitSet, direction, note, released, formula, tags, null);
    }

    /** A measured one without tags. */
    public Point(
            String id,
            int number,
            String name,
            String placeId,
            Quantity quantity,
            String unit,
            @Nullable String limitSet,
            @Nullable String direction,
            @Nullable String note,
            boolean released) {
        this(id, number, name, placeId, quantity, unit, limitSet, direction, note, released, null, List.of());
    }

    /** How its values are written. */
    @Override
    public Shown shown() {
        return shown == null ? Shown.USUAL : shown;
    }

    /** With how many decimals its values are written. */
    public int decimals() {
        Integer own = shown().decimals();
        return own == null ? quantity.decimals() : own;
    }

    /** How its values have been averaged over time: limits for means hold for means. */
    public Averaging averaging() {
        return Formula.averagingOf(formula);
    }

    /** Whether a value, in the point's unit, can be real. */
    public boolean isPhysical(double value) {
        OptionalDouble usual = Units.convert(value, unit, quantity.unit());
        return usual.isEmpty() ? Double.isFinite(value) : quantity.isPhysical(usual.getAsDouble());
    }

    /** The least value that can be real, in the point's unit. */
    public double lowest() {
        return Units.convert(quantity.lowest(), quantity.unit(), unit).orElse(Double.NEGATIVE_INFINITY);
    }

    /** The greatest value that can be real, in the point's unit. */
    public double highest() {
        return Units.convert(quantity.highest(), quantity.unit(), unit).orElse(Double.POSITIVE_INFINITY);
    }

    /** A value of it with its unit, as people write it: "6.4 mm/s". */
    public String inWords(double value) {
        return Decimals.text(value) + (unit.isEmpty() ? "" : " " + unit);
    }

    /** The same with its values written in another unit. */
    public Point in(UnitChange change) {
        return change.changesNothing()
                ? this
                : new Point(
                        id,
                        number,
                        name,
                        placeId,
                        quantity,
                        change.to(),
                        limitSet,
                        direction,
                        note,
                        released,
                        formula,
                        tags,
                        new Shown(change.decimals(decimals()), shown().words()));
    }

    public Point withReleased(boolean value) {
        return new Point(
                id, number, name, placeId, quantity, unit, limitSet, direction, note, value, formula, tags, shown);
    }

    /** The number of a point as somebody writes it; empty for what is none. */
    public static Optional<Integer> number(String text) {
        boolean digits =
                !text.isEmpty() && text.length() < MOST_DIGITS && text.chars().allMatch(Character::isDigit);
        return digits ? Optional.of(Integer.valueOf(text)) : Optional.empty();
    }
}
