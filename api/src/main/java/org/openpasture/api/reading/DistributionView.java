package org.openpasture.api.reading;

import java.util.List;

/**
 * For how long a point's value lay where in a range.
 *
 * @param knownSeconds for how long a value is known
 * @param lowest where the first class begins, in the point's unit
 * @param step how wide a class is
 * @param seconds the time in each class, from the lowest up; none where nothing is known
 * @param exceeded which value was exceeded for 0, 1 … 100 % of the known time: the duration curve
 */
public record DistributionView(
        long knownSeconds, double lowest, double step, List<Long> seconds, List<Double> exceeded) {
    public DistributionView {
        seconds = List.copyOf(seconds);
        exceeded = List.copyOf(exceeded);
    }
}
