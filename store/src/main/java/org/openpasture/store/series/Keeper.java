package org.openpasture.store.series;

import static org.openpasture.store.generated.telemetrydb.Tables.CHUNK;
import static org.openpasture.store.generated.telemetrydb.Tables.POINT_RECORD;
import static org.openpasture.store.generated.telemetrydb.Tables.SUMMARY_BLOCK;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.function.Supplier;
import org.jooq.DSLContext;
import org.jooq.Record3;
import org.jooq.Result;
import org.jooq.impl.DSL;
import org.openpasture.core.series.CalendarPeriod;
import org.openpasture.core.series.Summarizer;

/**
 * Erases what is older than it is to be kept, in transactions of some dozen rows, so that ingest never waits for it.
 * Before every reading of a stretch goes, its hours are there; before the hours go, its days are.
 */
public final class Keeper {
    private static final int ROWS_AT_ONCE = 50;
    private final SeriesStore store;
    private final Supplier<DSLContext> reader;
    private final Writer writer;

    public Keeper(SeriesStore store, Supplier<DSLContext> reader, Writer writer) {
        this.store = store;
        this.reader = reader;
        this.writer = writer;
    }

    /** Erases what is too old of a point; returns how many readings went. Under the lock of whoever changes chunks. */
    public long erase(int point, Keep keep, Instant now) {
        long readings = 0;
        if (keep.detailDays() > 0) {
            long before = now.minus(Duration.ofDays(keep.detailDays())).toEpochMilli();
            for (long went = eraseChunks(point, before); went > 0; went = eraseChunks(point, before)) {
                readings += went;
            }
        }
        if (keep.hourDays() > 0) {
            eraseBlocks(
                    point,
                    Width.HOUR,
                    now.minus(Duration.ofDays(keep.hourDays())).toEpochMilli());
        }
        if (keep.dayDays() > 0) {
            eraseBlocks(
                    point, Width.DAY, now.minus(Duration.ofDays(keep.dayDays())).toEpochMilli());
        }
        return readings;
    }

    private long eraseChunks(int point, long before) {
        Result<Record3<Long, Long, Integer>> rows = reader.get()
                .select(CHUNK.ID, CHUNK.READINGS, DSL.field("length({0})", Integer.class, CHUNK.PACKED))
                .from(CHUNK)
                .where(CHUNK.POINT.eq((long) point))
                .and(CHUNK.LAST_TIME.lt(before))
                .orderBy(CHUNK.FIRST_TIME)
                .limit(ROWS_AT_ONCE)
                .fetch();
        if (rows.isEmpty()) {
            return 0;
        }
        List<Long> ids = rows.getValues(CHUNK.ID);
        long readings = rows.stream().mapToLong(Record3::value2).sum();
        long bytes = rows.stream().mapToLong(Record3::value3).sum();
        Long oldest = reader.get()
                .select(DSL.min(CHUNK.FIRST_TIME))
                .from(CHUNK)
                .where(CHUNK.POINT.eq((long) point))
                .and(CHUNK.ID.notIn(ids))
                .fetchSingle()
                .value1();
        long from = Summarizer.hourOf((oldest == null ? before : oldest) + Width.HOUR.millis() - 1);
        change(
                store.record(point).changed(-readings, -bytes, 0).withDetailFrom(from),
                dsl -> dsl.deleteFrom(CHUNK).where(CHUNK.ID.in(ids)).execute());
        return readings;
    }

    private void eraseBlocks(int point, Width width, long before) {
        Result<Record3<Long, Long, Integer>> rows = reader.get()
                .select(
                        SUMMARY_BLOCK.ID,
                        SUMMARY_BLOCK.LAST_START,
                        DSL.field("length({0})", Integer.class, SUMMARY_BLOCK.PACKED))
                .from(SUMMARY_BLOCK)
                .where(SUMMARY_BLOCK.POINT.eq((long) point))
                .and(SUMMARY_BLOCK.WIDTH.eq(width.code()))
                .and(SUMMARY_BLOCK.LAST_START.lt(before - width.millis()))
                .orderBy(SUMMARY_BLOCK.FIRST_START)
                .limit(ROWS_AT_ONCE)
                .fetch();
        if (rows.isEmpty()) {
            return;
        }
        List<Long> ids = rows.getValues(SUMMARY_BLOCK.ID);
        PointRecord record = store.record(point)
                .changed(0, 0, -rows.stream().mapToLong(Record3::value3).sum());
        if (width == Width.HOUR) {
            Long oldest = reader.get()
                    .select(DSL.min(SUMMARY_BLOCK.FIRST_START))
                    .from(SUMMARY_BLOCK)
                    .where(SUMMARY_BLOCK.POINT.eq((long) point))
                    .and(SUMMARY_BLOCK.WIDTH.eq(width.code()))
                    .and(SUMMARY_BLOCK.ID.notIn(ids))
                    .fetchSingle()
                    .value1();
            record = record.withHoursFrom(nextDay(point, oldest == null ? before : oldest));
        }
        change(record, dsl -> dsl.deleteFrom(SUMMARY_BLOCK)
                .where(SUMMARY_BLOCK.ID.in(ids))
                .execute());
        eraseBlocks(point, width, before);
    }

    /** The first midnight at or after a moment: the day that is cut is answered from its summary. */
    private long nextDay(int point, long time) {
        java.time.ZoneId zone = store.profile(point).zone();
        Instant start = CalendarPeriod.DAY.startOf(Instant.ofEpochMilli(time), zone);
        return (start.toEpochMilli() == time ? start : CalendarPeriod.DAY.next(start, zone)).toEpochMilli();
    }

    private void change(PointRecord record, java.util.function.Consumer<DSLContext> delete) {
        writer.write(dsl -> {
            delete.accept(dsl);
            dsl.update(POINT_RECORD)
                    .set(POINT_RECORD.READINGS, record.readings())
                    .set(POINT_RECORD.CHUNK_BYTES, record.chunkBytes())
                    .set(POINT_RECORD.SUMMARY_BYTES, record.summaryBytes())
                    .set(POINT_RECORD.DETAIL_FROM, record.detailFrom())
                    .set(POINT_RECORD.HOURS_FROM, record.hoursFrom())
                    .where(POINT_RECORD.POINT.eq((long) record.point()))
                    .execute();
        });
        store.remember(record);
    }
}
