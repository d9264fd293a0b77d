package org.openpasture.store.telemetry;

import static org.openpasture.store.generated.telemetrydb.Tables.INTAKE;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.jooq.DSLContext;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.judging.Event;
import org.openpasture.core.reading.Arrival;

/**
 * Counts what comes in live, hour by hour, so that what is to come can be told. Kept in memory for a minute, then on
 * disk.
 */
final class Intake {
    private static final long HOUR = Duration.ofHours(1).toMillis();
    /** What a frame takes besides its bytes: the columns around them, its receptions as text. */
    private static final long FRAME_EXTRA = 420;

    private final Instant openedAt;
    private long readings;
    private long frames;
    private long frameBytes;

    Intake(Instant openedAt) {
        this.openedAt = openedAt;
    }

    synchronized void count(List<Event> events, List<Frame> kept) {
        for (Event event : events) {
            if (event instanceof Event.ReadingsArrived(Arrival arrival) && arrival.origin() == Arrival.Origin.LIVE) {
                readings += arrival.readings().size();
            }
        }
        frames += kept.size();
        for (Frame frame : kept) {
            frameBytes += frame.bytes().length + frame.payload().length + FRAME_EXTRA;
        }
    }

    synchronized boolean isEmpty() {
        return readings == 0 && frames == 0;
    }

    /** Adds what was counted to the hour that it is. */
    synchronized void keep(DSLContext dsl, Instant now) {
        long hour = Math.floorDiv(now.toEpochMilli(), HOUR) * HOUR;
        dsl.insertInto(INTAKE, INTAKE.HOUR, INTAKE.READINGS, INTAKE.FRAMES, INTAKE.FRAME_BYTES)
                .values(hour, readings, frames, frameBytes)
                .onConflict(INTAKE.HOUR)
                .doUpdate()
                .set(INTAKE.READINGS, INTAKE.READINGS.plus(readings))
                .set(INTAKE.FRAMES, INTAKE.FRAMES.plus(frames))
                .set(INTAKE.FRAME_BYTES, INTAKE.FRAME_BYTES.plus(frameBytes))
                .execute();
        readings = 0;
        frames = 0;
        frameBytes = 0;
    }

    /**
     * What came in lately.
     *
     * @param hours over how many hours it was counted, 24 at most; 0 if nothing was counted yet
     */
    record Lately(double hours, long readings, long frames, long frameBytes) {}

    Lately lately(DSLContext dsl, Instant now) {
        long from = now.minus(Duration.ofHours(24)).toEpochMilli();
        long first = Long.MAX_VALUE;
        long ofReadings = 0;
        long ofFrames = 0;
        long ofBytes = 0;
        for (var row : dsl.selectFrom(INTAKE).where(INTAKE.HOUR.ge(from)).fetch()) {
            first = Math.min(first, row.getHour());
            ofReadings += row.getReadings();
            ofFrames += row.getFrames();
            ofBytes += row.getFrameBytes();
        }
        long begin = first > openedAt.toEpochMilli() - HOUR ? Math.max(first, openedAt.toEpochMilli()) : first;
        double hours = first == Long.MAX_VALUE ? 0 : Math.max(0, now.toEpochMilli() - begin) / (double) HOUR;
        return new Lately(hours, ofReadings, ofFrames, ofBytes);
    }
}
