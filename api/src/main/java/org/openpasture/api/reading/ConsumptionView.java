package org.openpasture.api.reading;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What was used out of something that is filled up from time to time, by the course of its contents.
 *
 * @param days how far back was looked
 * @param unit of all amounts
 * @param step by how much the contents rise at least where something is filled in; smaller rises are noise
 * @param used altogether
 * @param filled altogether
 * @param perDay what a whole day used on average; null if there is no whole day
 * @param lastsDays for how many days the present contents last at that; null where that cannot be told
 * @param periods what each day of the site's calendar used
 * @param fillings in the order of their times
 */
public record ConsumptionView(
        int days,
        String unit,
        double step,
        double used,
        double filled,
        @Nullable Double perDay,
        @Nullable Double lastsDays,
        List<UsedView> periods,
        List<FillingView> fillings) {

    /** What a day used. */
    public record UsedView(Instant from, double used) {}

    /**
     * Something was filled in.
     *
     * @param from when the contents were lowest before it
     * @param until when they were highest after it
     */
    public record FillingView(Instant from, Instant until, double before, double after, double amount) {}
}
