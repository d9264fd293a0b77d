package org.openpasture.store.telemetry;

import static org.openpasture.store.generated.telemetrydb.Tables.CHUNK;
import static org.openpasture.store.generated.telemetrydb.Tables.JOURNAL;
import static org.openpasture.store.generated.telemetrydb.Tables.SUMMARY_BLOCK;

import java.util.ArrayList;
import java.util.List;
import org.jooq.Cursor;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.openpasture.core.judging.JournalCodec;
import org.openpasture.core.series.ChunkCodec;
import org.openpasture.core.series.SeriesSlice;
import org.openpasture.core.series.SummaryCodec;

/** Asks SQLite whether its pages are sound, then reads every chunk, block and journal row. */
final class IntegrityCheck {
    private static final int MOST_FAULTS = 100;
    private final List<String> faults = new ArrayList<>();
    private long chunks;
    private long readings;
    private long summaries;

    private IntegrityCheck() {}

    static Integrity of(DSLContext dsl) {
        IntegrityCheck check = new IntegrityCheck();
        dsl.fetch("PRAGMA integrity_check").getValues(0, String.class).stream()
                .filter(line -> !"ok".equals(line))
                .forEach(check::fault);
        try (Cursor<? extends Record> rows = dsl.selectFrom(CHUNK).fetchLazy()) {
            rows.forEach(row -> check.chunk(
                    row.get(CHUNK.POINT),
                    row.get(CHUNK.FIRST_TIME),
                    row.get(CHUNK.LAST_TIME),
                    row.get(CHUNK.READINGS),
                    row.get(CHUNK.PACKED)));
        }
        try (Cursor<? extends Record> rows = dsl.selectFrom(SUMMARY_BLOCK).fetchLazy()) {
            rows.forEach(row -> check.block(row.get(SUMMARY_BLOCK.POINT), row.get(SUMMARY_BLOCK.PACKED)));
        }
        try (Cursor<? extends Record> rows = dsl.selectFrom(JOURNAL).fetchLazy()) {
            rows.forEach(row -> check.journal(row.get(JOURNAL.SEQ), row.get(JOURNAL.EVENTS)));
        }
        return new Integrity(check.chunks, check.readings, check.summaries, List.copyOf(check.faults));
    }

    private void chunk(long point, long first, long last, long count, byte[] packed) {
        try {
            SeriesSlice slice = ChunkCodec.decode(packed);
            if (slice.size() != count || slice.times()[0] != first || slice.times()[slice.size() - 1] != last) {
                fault("point " + point + ": a chunk does not hold what its row says");
                return;
            }
            chunks++;
            readings += slice.size();
        } catch (IllegalArgumentException e) {
            fault("point " + point + ": " + e.getMessage());
        }
    }

    private void block(long point, byte[] packed) {
        try {
            summaries += SummaryCodec.decode(packed).size();
        } catch (IllegalArgumentException e) {
            fault("point " + point + ": " + e.getMessage());
        }
    }

    private void journal(long seq, byte[] events) {
        try {
            JournalCodec.decode(events);
        } catch (IllegalArgumentException e) {
            fault("journal row " + seq + ": " + e.getMessage());
        }
    }

    private void fault(String what) {
        if (faults.size() < MOST_FAULTS) {
            faults.add(what);
        }
    }
}
