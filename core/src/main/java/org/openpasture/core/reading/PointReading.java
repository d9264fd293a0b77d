package org.openpasture.core.reading;

/**
 * A reading and the point that it belongs to.
 *
 * @param point the point's number, which is its key in the record store
 */
public record PointReading(int point, Reading reading) {}
