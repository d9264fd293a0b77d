package org.openpasture.api.reading;

/**
 * Readings of a point over a range, as parallel arrays.
 *
 * @param times epoch milliseconds
 * @param qualities 0 good, 1 uncertain, 2 bad
 * @param kept how many readings the range holds; more than the arrays hold if they were reduced
 */
public record SeriesView(String pointId, String unit, long[] times, double[] values, byte[] qualities, int kept) {}
