package org.openpasture.api.reading;

import java.util.List;

/**
 * Readings of a point over a range, as parallel arrays.
 *
 * @param times epoch milliseconds
 * @param qualities 0 good, 1 uncertain, 2 bad
 * @param kept how many readings the range holds; more than the arrays hold if they were reduced
 * @param gaps across which no line is to be drawn
 */
public record SeriesView(
        String pointId, String unit, long[] times, double[] values, byte[] qualities, long kept, List<Gap> gaps) {
    /**
     * A stretch in which nothing came though it should have; epoch milliseconds of the readings before and after it.
     */
    public record Gap(long from, long until) {}
}
