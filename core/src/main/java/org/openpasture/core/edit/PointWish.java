package org.openpasture.core.edit;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Shown;
import org.openpasture.core.place.Tags;
import org.openpasture.core.quantity.Quantity;

/** What a person wishes to do with a measuring point. */
public sealed interface PointWish {
    /**
     * Makes a point with an id that is new; its number follows the highest that there is, or was.
     *
     * @param highestKept the highest number that the record knows of, also of points that are gone: what is kept of
     *     them never becomes another point's
     */
    record Make(String id, Properties properties, int highestKept) implements PointWish {
        /** Where nothing is kept yet. */
        public Make(String id, Properties properties) {
            this(id, properties, 0);
        }
    }

    /**
     * Gives a point other properties; another place moves it, with its history.
     *
     * @param hasReadings whether there are readings of it, which are in its unit
     */
    record Change(String id, Properties properties, boolean hasReadings) implements PointWish {}

    /** Lets people without the right to edit see it. */
    record Release(String id) implements PointWish {}

    /**
     * Takes it out.
     *
     * @param hasReadings whether there are readings of it, which nobody would find any more
     */
    record Remove(String id, boolean hasReadings) implements PointWish {}

    /**
     * What people set of a point; see {@link Point}.
     *
     * @param unit null for the quantity's own
     * @param formula of a derived point; null if it is measured
     * @param tags null for those that the point has; a new one has none
     * @param shown how its values are written; null for as they are
     */
    record Properties(
            String name,
            String placeId,
            Quantity quantity,
            @Nullable String unit,
            @Nullable String limitSet,
            @Nullable String direction,
            @Nullable String note,
            boolean released,
            @Nullable Formula formula,
            @Nullable List<String> tags,
            @Nullable Shown shown) {
        public Properties {
            tags = tags == null ? null : Tags.of(tags);
        }

        /** The unit, or the quantity's own where none was chosen. */
        String unitOrUsual() {
            return unit == null ? quantity.unit() : unit;
        }

        Point point(String id, int number, List<String> before, Shown shownBefore) {
            return new Point(
                    id,
                    number,
                    name,
                    placeId,
                    quantity,
                    unitOrUsual(),
                    limitSet,
                    direction,
                    note,
                    released,
                    formula,
                    tags == null ? before : tags,
                    shown == null ? shownBefore : shown);
        }
    }
}
