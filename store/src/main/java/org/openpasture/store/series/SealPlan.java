package org.openpasture.store.series;

import static org.openpasture.store.generated.telemetrydb.Tables.CHUNK;
import static org.openpasture.store.generated.telemetrydb.Tables.POINT_RECORD;
import static org.openpasture.store.generated.telemetrydb.Tables.REPLACED_READING;
import static org.openpasture.store.generated.telemetrydb.Tables.SUMMARY_BLOCK;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.jooq.BatchBindStep;
import org.jooq.DSLContext;
import org.openpasture.core.series.PointSeries;
import org.openpasture.core.series.SeriesSlice;

/** Which rows of chunks, summaries and points' records go and which come, for some points, in one transaction. */
final class SealPlan {
    final List<Long> chunksGone = new ArrayList<>();
    final List<NewChunk> newChunks = new ArrayList<>();
    final List<Long> blocksGone = new ArrayList<>();
    final List<NewBlock> newBlocks = new ArrayList<>();
    final List<PointRecord> records = new ArrayList<>();
    final List<PointReplaced> replaced = new ArrayList<>();
    final List<Part> parts = new ArrayList<>();

    record NewChunk(int point, SeriesTables.ChunkRow row) {}

    record NewBlock(int point, Width width, int count, SeriesTables.BlockRow row) {}

    record PointReplaced(int point, PointSeries.Replaced replaced) {}

    /**
     * Readings of one point that lie close together in time.
     *
     * @param whole all that leaves memory of the point
     * @param isLast whether everything that leaves is on disk when this is
     */
    record Part(int point, SeriesSlice whole, SeriesSlice group, boolean isLast) {}

    boolean isEmpty() {
        return records.isEmpty() && replaced.isEmpty();
    }

    /** Writes it in the transaction that runs. */
    void write(DSLContext dsl, Instant now) {
        delete(dsl, chunksGone, true);
        delete(dsl, blocksGone, false);
        if (!newChunks.isEmpty()) {
            BatchBindStep insert = dsl.batch(dsl.insertInto(
                            CHUNK,
                            CHUNK.ID,
                            CHUNK.POINT,
                            CHUNK.FIRST_TIME,
                            CHUNK.LAST_TIME,
                            CHUNK.READINGS,
                            CHUNK.PACKED)
                    .values((Long) null, null, null, null, null, null));
            for (NewChunk chunk : newChunks) {
                SeriesTables.ChunkRow row = chunk.row();
                insert = insert.bind(
                        row.id(),
                        (long) chunk.point(),
                        row.firstTime(),
                        row.lastTime(),
                        (long) row.readings(),
                        row.packed());
            }
            insert.execute();
        }
        if (!newBlocks.isEmpty()) {
            BatchBindStep insert = dsl.batch(dsl.insertInto(
                            SUMMARY_BLOCK,
                            SUMMARY_BLOCK.ID,
                            SUMMARY_BLOCK.POINT,
                            SUMMARY_BLOCK.WIDTH,
                            SUMMARY_BLOCK.FIRST_START,
                            SUMMARY_BLOCK.LAST_START,
                            SUMMARY_BLOCK.SUMMARIES,
                            SUMMARY_BLOCK.PACKED)
                    .values((Long) null, null, null, null, null, null, null));
            for (NewBlock block : newBlocks) {
                SeriesTables.BlockRow row = block.row();
                insert = insert.bind(
                        row.id(),
                        (long) block.point(),
                        block.width().code(),
                        row.firstStart(),
                        row.lastStart(),
                        (long) block.count(),
                        row.packed());
            }
            insert.execute();
        }
        if (!records.isEmpty()) {
            upsert(dsl, records);
        }
        if (!replaced.isEmpty()) {
            BatchBindStep insert = dsl.batch(dsl.insertInto(
                            REPLACED_READING,
                            REPLACED_READING.POINT,
                            REPLACED_READING.TIME,
                            REPLACED_READING.VALUE,
                            REPLACED_READING.QUALITY,
                            REPLACED_READING.REPLACED_BY,
                            REPLACED_READING.NOTICED_AT)
                    .values((Long) null, null, null, null, null, null)
                    .onConflictDoNothing());
            for (PointReplaced one : replaced) {
                insert = insert.bind(
                        (long) one.point(),
                        one.replaced().old().time().toEpochMilli(),
                        one.replaced().old().value(),
                        (long) one.replaced().old().quality().code(),
                        one.replaced().by(),
                        now.toEpochMilli());
            }
            insert.execute();
        }
    }

    private static void upsert(DSLContext dsl, List<PointRecord> records) {
        BatchBindStep upsert = dsl.batch(dsl.insertInto(
                        POINT_RECORD,
                        POINT_RECORD.POINT,
                        POINT_RECORD.READINGS,
                        POINT_RECORD.CHUNK_BYTES,
                        POINT_RECORD.SUMMARY_BYTES,
                        POINT_RECORD.LAST_TIME,
                        POINT_RECORD.LAST_VALUE,
                        POINT_RECORD.LAST_QUALITY,
                        POINT_RECORD.DETAIL_FROM,
                        POINT_RECORD.HOURS_FROM)
                .values((Long) null, null, null, null, null, null, null, null, null)
                .onConflict(POINT_RECORD.POINT)
                .doUpdate()
                .setAllToExcluded());
        for (PointRecord record : records) {
            upsert = upsert.bind(
                    (long) record.point(),
                    record.readings(),
                    record.chunkBytes(),
                    record.summaryBytes(),
                    record.lastTime(),
                    record.lastValue(),
                    (long) record.lastQuality(),
                    record.detailFrom(),
                    record.hoursFrom());
        }
        upsert.execute();
    }

    private static void delete(DSLContext dsl, List<Long> ids, boolean chunks) {
        if (!ids.isEmpty()) {
            BatchBindStep delete = dsl.batch(
                    chunks
                            ? dsl.deleteFrom(CHUNK).where(CHUNK.ID.eq((Long) null))
                            : dsl.deleteFrom(SUMMARY_BLOCK).where(SUMMARY_BLOCK.ID.eq((Long) null)));
            for (long id : ids) {
                delete = delete.bind(id);
            }
            delete.execute();
        }
    }
}
