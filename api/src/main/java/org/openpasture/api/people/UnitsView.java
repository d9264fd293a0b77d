package org.openpasture.api.people;

import java.util.List;
import java.util.Map;

/**
 * The units in which the reader reads values, what there is to choose from, and how values get there.
 *
 * @param units unit by quantity; what is not there is read as it is kept
 * @param choices for each quantity with more than one unit, those units
 * @param changes how values that are kept in a unit are shown, for each quantity and unit where that differs
 */
public record UnitsView(Map<String, String> units, List<Choice> choices, List<Change> changes) {
    /**
     * Units to choose from.
     *
     * @param quantity its id
     * @param title what it is called
     * @param units the usual one first
     * @param imperial that of the imperial system; the usual one where it has none of its own
     */
    public record Choice(String quantity, String title, List<String> units, String imperial) {}

    /**
     * One way from what is kept to what is shown: {@code shown = kept * factor + offset}.
     *
     * @param quantity its id
     * @param from the unit values are kept in
     * @param to the unit they are shown in
     * @param moreDecimals how many more decimals show as much; less than zero for fewer
     */
    public record Change(String quantity, String from, String to, double factor, double offset, int moreDecimals) {}
}
