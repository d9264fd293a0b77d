package org.openpasture.core.geo;

import java.time.Instant;
import java.util.function.Consumer;
import org.openpasture.core.series.Records;
import org.openpasture.core.series.SeriesSlice;

/**
 * The way of something that moves: positions of moments at which both latitude and longitude were read, each with the
 * newest value of another point, not older than ten minutes.
 *
 * @param latitude number of the point
 * @param longitude number of the point
 * @param value number of the point whose value goes with each position; below 0 for none
 */
public record Track(Records records, int latitude, int longitude, int value) {
    private static final long OLDEST_MILLIS = 600_000;

    /** Where it was; {@code value} is NaN where there is none. */
    public record Position(Instant time, double latitude, double longitude, double value) {}

    /**
     * All positions of a range in order. Longitudes and values are read along with the latitudes, a piece at a time.
     */
    public void read(Instant from, Instant until, Consumer<Position> each) {
        records.read(latitude, from, until, latitudes -> {
            if (latitudes.size() == 0) {
                return;
            }
            Instant first = Instant.ofEpochMilli(latitudes.times()[0]);
            Instant end = Instant.ofEpochMilli(latitudes.times()[latitudes.size() - 1] + 1);
            SeriesSlice longitudes = records.range(longitude, first, end);
            SeriesSlice values =
                    value < 0 ? SeriesSlice.empty() : records.range(value, first.minusMillis(OLDEST_MILLIS), end);
            for (int i = 0; i < latitudes.size(); i++) {
                long time = latitudes.times()[i];
                int at = longitudes.indexOf(time);
                if (at < longitudes.size() && longitudes.times()[at] == time) {
                    each.accept(new Position(
                            Instant.ofEpochMilli(time),
                            latitudes.values()[i],
                            longitudes.values()[at],
                            newest(values, time)));
                }
            }
        });
    }

    private static double newest(SeriesSlice values, long time) {
        int at = values.indexOf(time + 1) - 1;
        return at >= 0 && time - values.times()[at] <= OLDEST_MILLIS ? values.values()[at] : Double.NaN;
    }
}
