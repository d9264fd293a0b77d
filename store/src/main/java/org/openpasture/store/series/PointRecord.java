package org.openpasture.store.series;

import java.time.Instant;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;

/**
 * What is kept of a point on disk.
 *
 * @param readings in chunks
 * @param chunkBytes of its chunks
 * @param summaryBytes of its summaries
 * @param lastTime of the newest reading in chunks, epoch ms
 * @param detailFrom full detail before this was erased, epoch ms; {@link Long#MIN_VALUE} while all is there
 * @param hoursFrom hour summaries before this were erased
 */
public record PointRecord(
        int point,
        long readings,
        long chunkBytes,
        long summaryBytes,
        long lastTime,
        double lastValue,
        int lastQuality,
        long detailFrom,
        long hoursFrom) {
    static PointRecord none(int point) {
        return new PointRecord(point, 0, 0, 0, Long.MIN_VALUE, 0, 0, Long.MIN_VALUE, Long.MIN_VALUE);
    }

    public Reading last() {
        return new Reading(Instant.ofEpochMilli(lastTime), lastValue, Quality.ofCode(lastQuality));
    }

    PointRecord changed(long moreReadings, long moreChunkBytes, long moreSummaryBytes) {
        return new PointRecord(
                point,
                readings + moreReadings,
                chunkBytes + moreChunkBytes,
                summaryBytes + moreSummaryBytes,
                lastTime,
                lastValue,
                lastQuality,
                detailFrom,
                hoursFrom);
    }

    PointRecord withLast(long time, double value, int quality) {
        return new PointRecord(point, readings, chunkBytes, summaryBytes, time, value, quality, detailFrom, hoursFrom);
    }

    PointRecord withDetailFrom(long time) {
        return new PointRecord(
                point, readings, chunkBytes, summaryBytes, lastTime, lastValue, lastQuality, time, hoursFrom);
    }

    PointRecord withHoursFrom(long time) {
        return new PointRecord(
                point, readings, chunkBytes, summaryBytes, lastTime, lastValue, lastQuality, detailFrom, time);
    }
}
