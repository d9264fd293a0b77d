package org.openpasture.engine.export;

import java.time.ZoneId;
import org.openpasture.core.people.DisplayUnits;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.UnitChange;
import org.openpasture.core.registry.Registry;

/**
 * A point that is exported.
 *
 * @param place name of what it belongs to
 * @param point with the unit in which its values are written
 * @param zone of its site, in which times are written
 * @param change from the unit that its values are kept in
 */
public record ExportedPoint(Point point, String place, ZoneId zone, UnitChange change) {
    /** A point as it is registered now, in the units of somebody. */
    public static ExportedPoint of(Registry now, Point point, DisplayUnits units) {
        UnitChange change = units.change(point);
        return new ExportedPoint(
                point.in(change),
                now.place(point.placeId()).map(Place::name).orElse(""),
                now.zoneOf(point.placeId()),
                change);
    }

    /** A point with its values as they are kept. */
    public static ExportedPoint asKept(Registry now, Point point) {
        return of(now, point, DisplayUnits.asKept(""));
    }

    String title() {
        return place.isEmpty() ? point.name() : place + ": " + point.name();
    }
}
