package org.openpasture.service.export;

import java.time.ZoneId;
import org.openpasture.core.place.Point;

/**
 * A point that is exported.
 *
 * @param place name of what it belongs to
 * @param zone of its site, in which times are written
 */
record ExportedPoint(Point point, String place, ZoneId zone) {
  String title() {
    return place.isEmpty() ? point.name() : place + ": " + point.name();
  }
}
