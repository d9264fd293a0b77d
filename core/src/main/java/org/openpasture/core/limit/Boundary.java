package org.openpasture.core.limit;

/**
 * The border to a worse zone.
 *
 * @param value in the limit set's unit
 * @param severity of the zone behind it
 * @param label of the zone behind it
 */
public record Boundary(double value, Severity severity, String label) {}
