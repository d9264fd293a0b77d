package org.openpasture.engine.judging;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import org.openpasture.core.judging.Past;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.series.Summarizer;
import org.openpasture.core.series.Summary;
import org.openpasture.engine.record.InOrder;
import org.openpasture.store.series.SeriesStore;

/** The past as it is in the record: each reading, or, where these are many, the means of hours. For any thread. */
final class RecordedPast implements Past {
    /** A rule can have a thousand members, and judging waits meanwhile. */
    private static final long MOST_READINGS = 5_000;

    private static final long HOUR_MILLIS = Duration.ofHours(1).toMillis();
    private final SeriesStore series;

    RecordedPast(SeriesStore series) {
        this.series = series;
    }

    @Override
    public void read(int point, Instant from, Instant until, Consumer<Reading> consumer) {
        if (series.estimate(point, from, until) <= MOST_READINGS) {
            InOrder.read(series, List.of(point), from, until, one -> consumer.accept(one.reading()));
            return;
        }
        long begin = from.toEpochMilli();
        int hours = (int) ((until.toEpochMilli() - begin) / HOUR_MILLIS);
        long[] edges = Summarizer.edges(begin, HOUR_MILLIS, hours);
        for (Summary hour : series.summaries(point, edges)) {
            if (hour.count() > 0) {
                consumer.accept(new Reading(hour.start().plusMillis(HOUR_MILLIS / 2), hour.mean(), Quality.GOOD));
            }
        }
    }

    @Override
    public Optional<Reading> before(int point, Instant moment) {
        return series.before(point, moment);
    }
}
