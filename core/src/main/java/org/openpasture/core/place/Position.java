package org.openpasture.core.place;

/**
 * A spot on earth, WGS 84.
 *
 * @param latitude degrees north, -90 to 90
 * @param longitude degrees east, -180 to 180
 */
public record Position(double latitude, double longitude) {
    public Position {
        if (!(Math.abs(latitude) <= 90) || !(Math.abs(longitude) <= 180)) {
            throw new IllegalArgumentException("no such position: " + latitude + ", " + longitude);
        }
    }
}
