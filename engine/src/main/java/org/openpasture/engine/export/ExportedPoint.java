package org.openpasture.engine.export;

import java.time.ZoneId;
import java.time.ZoneOffset;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Registry;

/**
 * A point that is exported.
 *
 * @param place name of what it belongs to
 * @param zone of its site, in which times are written
 */
public record ExportedPoint(Point point, String place, ZoneId zone) {
    /** A point as it is registered now. */
    public static ExportedPoint of(Registry now, Point point) {
        return new ExportedPoint(
                point,
                now.place(point.placeId()).map(Place::name).orElse(""),
                now.siteOf(point.placeId()).map(Site::zone).orElse(ZoneOffset.UTC));
    }

    String title() {
        return place.isEmpty() ? point.name() : place + ": " + point.name();
    }
}
