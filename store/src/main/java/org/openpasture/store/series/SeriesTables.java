package org.openpasture.store.series;

import static org.openpasture.store.generated.telemetrydb.Tables.CHUNK;
import static org.openpasture.store.generated.telemetrydb.Tables.POINT_RECORD;
import static org.openpasture.store.generated.telemetrydb.Tables.SUMMARY_BLOCK;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Supplier;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Table;
import org.jooq.impl.DSL;
import org.openpasture.core.series.ChunkCodec;
import org.openpasture.core.series.SeriesSlice;
import org.openpasture.core.series.Summary;
import org.openpasture.core.series.SummaryCodec;

/** Reads chunks and summaries of points from the disk. */
final class SeriesTables {
    static final int CHUNKS_AT_ONCE = 64;
    private final Supplier<DSLContext> reader;

    SeriesTables(Supplier<DSLContext> reader) {
        this.reader = reader;
    }

    /** A chunk row without its readings. */
    record ChunkRow(long id, long firstTime, long lastTime, int readings, int bytes, byte[] packed) {
        SeriesSlice slice() {
            return ChunkCodec.decode(packed);
        }
    }

    /** A row of summaries. */
    record BlockRow(long id, long firstStart, long lastStart, int bytes, byte[] packed) {
        List<Summary> summaries() {
            return SummaryCodec.decode(packed);
        }
    }

    /**
     * The chunks in which readings with {@code from <= time < until} can lie, in order. A chunk that begins before
     * {@code from} is among them.
     */
    List<ChunkRow> chunks(int point, long from, long until) {
        return chunks(point, from, until, Integer.MAX_VALUE);
    }

    /** The same, a page of them at most; a full page may have more to come. */
    List<ChunkRow> pageOfChunks(int point, long from, long until) {
        return chunks(point, from, until, CHUNKS_AT_ONCE);
    }

    private List<ChunkRow> chunks(int point, long from, long until, int most) {
        return reader.get()
                .select(CHUNK.ID, CHUNK.FIRST_TIME, CHUNK.LAST_TIME, CHUNK.READINGS, CHUNK.PACKED)
                .from(CHUNK)
                .where(CHUNK.POINT.eq((long) point))
                .and(fromThatBefore(CHUNK, CHUNK.POINT.eq((long) point), CHUNK.FIRST_TIME, from))
                .and(CHUNK.FIRST_TIME.lt(until))
                .orderBy(CHUNK.FIRST_TIME)
                .limit(most)
                .fetch(row -> new ChunkRow(
                        row.value1(),
                        row.value2(),
                        row.value3(),
                        row.value4().intValue(),
                        row.value5().length,
                        row.value5()));
    }

    /** Rows from the last one that begins at or before a moment; all where there is none. */
    private static Condition fromThatBefore(Table<?> table, Condition ofPoint, Field<Long> first, long from) {
        return first.ge(DSL.coalesce(
                DSL.field(DSL.select(DSL.max(first)).from(table).where(ofPoint).and(first.le(from))),
                DSL.inline(Long.MIN_VALUE)));
    }

    /** The first chunk that begins after a moment. */
    List<ChunkRow> chunkAfter(int point, long time) {
        return reader.get()
                .select(CHUNK.ID, CHUNK.FIRST_TIME, CHUNK.LAST_TIME, CHUNK.READINGS, CHUNK.PACKED)
                .from(CHUNK)
                .where(CHUNK.POINT.eq((long) point))
                .and(CHUNK.FIRST_TIME.gt(time))
                .orderBy(CHUNK.FIRST_TIME)
                .limit(1)
                .fetch(row -> new ChunkRow(
                        row.value1(),
                        row.value2(),
                        row.value3(),
                        row.value4().intValue(),
                        row.value5().length,
                        row.value5()));
    }

    long lastChunkId() {
        Long id =
                reader.get().select(DSL.max(CHUNK.ID)).from(CHUNK).fetchSingle().value1();
        return id == null ? 0 : id;
    }

    long lastBlockId() {
        Long id = reader.get()
                .select(DSL.max(SUMMARY_BLOCK.ID))
                .from(SUMMARY_BLOCK)
                .fetchSingle()
                .value1();
        return id == null ? 0 : id;
    }

    /** How many readings lie in chunks that touch a range. */
    long estimate(int point, long from, long until) {
        return reader.get()
                .select(DSL.coalesce(DSL.sum(CHUNK.READINGS), DSL.inline(java.math.BigDecimal.ZERO)))
                .from(CHUNK)
                .where(CHUNK.POINT.eq((long) point))
                .and(fromThatBefore(CHUNK, CHUNK.POINT.eq((long) point), CHUNK.FIRST_TIME, from))
                .and(CHUNK.FIRST_TIME.lt(until))
                .fetchSingle()
                .value1()
                .longValue();
    }

    /** The blocks in which summaries that start in a range can lie, in order. */
    List<BlockRow> blocks(int point, Width width, long from, long until) {
        Condition ofPoint = SUMMARY_BLOCK.POINT.eq((long) point).and(SUMMARY_BLOCK.WIDTH.eq(width.code()));
        return reader.get()
                .select(SUMMARY_BLOCK.ID, SUMMARY_BLOCK.FIRST_START, SUMMARY_BLOCK.LAST_START, SUMMARY_BLOCK.PACKED)
                .from(SUMMARY_BLOCK)
                .where(ofPoint)
                .and(fromThatBefore(SUMMARY_BLOCK, ofPoint, SUMMARY_BLOCK.FIRST_START, from))
                .and(SUMMARY_BLOCK.FIRST_START.lt(until))
                .orderBy(SUMMARY_BLOCK.FIRST_START)
                .fetch(row ->
                        new BlockRow(row.value1(), row.value2(), row.value3(), row.value4().length, row.value4()));
    }

    /** Stored summaries that start in a range, in order. */
    List<Summary> summaries(int point, Width width, long from, long until) {
        List<Summary> found = new ArrayList<>();
        for (BlockRow row : blocks(point, width, from, until)) {
            for (Summary summary : row.summaries()) {
                long start = summary.start().toEpochMilli();
                if (start >= from && start < until) {
                    found.add(summary);
                }
            }
        }
        return found;
    }

    /** What is kept of each point. */
    List<PointRecord> records() {
        return reader.get()
                .selectFrom(POINT_RECORD)
                .orderBy(POINT_RECORD.POINT)
                .fetch(row -> new PointRecord(
                        row.getPoint().intValue(),
                        row.getReadings(),
                        row.getChunkBytes(),
                        row.getSummaryBytes(),
                        row.getLastTime(),
                        row.getLastValue(),
                        row.getLastQuality().intValue(),
                        row.getDetailFrom(),
                        row.getHoursFrom()));
    }
}
