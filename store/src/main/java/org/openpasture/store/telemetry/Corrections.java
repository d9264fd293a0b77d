package org.openpasture.store.telemetry;

import static org.openpasture.store.generated.telemetrydb.Tables.CORRECTION;
import static org.openpasture.store.generated.telemetrydb.Tables.CORRECTION_PART;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.series.ChunkCodec;
import org.openpasture.core.series.SeriesSlice;
import org.openpasture.store.generated.telemetrydb.tables.records.CorrectionPartRecord;
import org.openpasture.store.series.Rewrite;
import org.openpasture.store.sqlite.Backwards;

/**
 * Changes that people make in the record: a range is erased, or readings are computed anew. What was there before is
 * kept beside each, so that it can be undone; what came in meanwhile stays.
 */
public final class Corrections {
    private static final int MOST_LISTED = 500;
    private final TelemetryStore store;
    private final Supplier<DSLContext> reader;
    private final Clock clock;

    Corrections(TelemetryStore store, Supplier<DSLContext> reader, Clock clock) {
        this.store = store;
        this.reader = reader;
        this.clock = clock;
    }

    /**
     * A change that somebody made.
     *
     * @param before how many readings there were in the ranges
     * @param after how many there were after it
     * @param undoneAt null while it holds
     */
    public record Correction(
            long id,
            Instant at,
            String person,
            String note,
            List<Integer> points,
            Instant from,
            Instant until,
            long before,
            long after,
            @Nullable Instant undoneAt,
            @Nullable String undoneBy) {}

    /** Makes a change; it is on disk when this returns, with its number. Ranges of different points. */
    public synchronized long make(String person, String note, List<Rewrite> rewrites) {
        if (rewrites.isEmpty()) {
            throw new IllegalArgumentException("there is nothing to change");
        }
        Long last = reader.get()
                .select(DSL.max(CORRECTION.ID))
                .from(CORRECTION)
                .fetchSingle()
                .value1();
        long id = last == null ? 1 : last + 1;
        for (int i = 0; i < rewrites.size(); i++) {
            Rewrite rewrite = rewrites.get(i);
            SeriesSlice before = range(rewrite.point(), rewrite.from(), rewrite.until());
            boolean first = i == 0;
            store.rewrite(rewrite, dsl -> {
                if (first) {
                    dsl.insertInto(CORRECTION, CORRECTION.ID, CORRECTION.AT, CORRECTION.PERSON, CORRECTION.NOTE)
                            .values(id, clock.millis(), person, note)
                            .execute();
                }
                dsl.insertInto(
                                CORRECTION_PART,
                                CORRECTION_PART.CORRECTION,
                                CORRECTION_PART.POINT,
                                CORRECTION_PART.FROM_TIME,
                                CORRECTION_PART.UNTIL_TIME,
                                CORRECTION_PART.BEFORE,
                                CORRECTION_PART.AFTER)
                        .values(
                                id,
                                (long) rewrite.point(),
                                rewrite.from(),
                                rewrite.until(),
                                packed(before),
                                packed(rewrite.readings()))
                        .execute();
            });
        }
        return id;
    }

    /** Undoes a change; false if there is no such change or it was undone before. */
    public synchronized boolean undo(long id, String person) {
        if (find(id).filter(correction -> correction.undoneAt() == null).isEmpty()) {
            return false;
        }
        for (CorrectionPartRecord part : reader.get()
                .selectFrom(CORRECTION_PART)
                .where(CORRECTION_PART.CORRECTION.eq(id))
                .fetch()) {
            int point = part.getPoint().intValue();
            SeriesSlice meanwhile =
                    range(point, part.getFromTime(), part.getUntilTime()).withoutTimesOf(unpacked(part.getAfter()));
            store.rewrite(
                    new Rewrite(
                            point,
                            part.getFromTime(),
                            part.getUntilTime(),
                            unpacked(part.getBefore()).merge(meanwhile)),
                    dsl -> dsl.update(CORRECTION)
                            .set(CORRECTION.UNDONE_AT, clock.millis())
                            .set(CORRECTION.UNDONE_BY, person)
                            .where(CORRECTION.ID.eq(id))
                            .execute());
        }
        return true;
    }

    private SeriesSlice range(int point, long from, long until) {
        return store.series().range(point, Instant.ofEpochMilli(from), Instant.ofEpochMilli(until));
    }

    /** The highest number of a point that a change is about; 0 for none. */
    int highestPoint() {
        Long highest = reader.get()
                .select(DSL.max(CORRECTION_PART.POINT))
                .from(CORRECTION_PART)
                .fetchSingle()
                .value1();
        return highest == null ? 0 : highest.intValue();
    }

    public Optional<Correction> find(long id) {
        return list(CORRECTION.ID.eq(id), 1).stream().findFirst();
    }

    /** Changes, the newest first, at most {@value #MOST_LISTED}. */
    public List<Correction> list() {
        return list(DSL.noCondition(), MOST_LISTED);
    }

    /** Changes by when they were made, the newest first. */
    public List<Correction> made(Backwards from) {
        return list(from.where(CORRECTION.AT, CORRECTION.ID), from.most());
    }

    private List<Correction> list(Condition which, int most) {
        List<Correction> found = new ArrayList<>();
        reader.get()
                .selectFrom(CORRECTION)
                .where(which)
                .orderBy(Backwards.order(CORRECTION.AT, CORRECTION.ID))
                .limit(most)
                .forEach(row -> {
                    List<CorrectionPartRecord> parts = reader.get()
                            .selectFrom(CORRECTION_PART)
                            .where(CORRECTION_PART.CORRECTION.eq(row.getId()))
                            .fetch();
                    found.add(new Correction(
                            row.getId(),
                            Instant.ofEpochMilli(row.getAt()),
                            row.getPerson(),
                            row.getNote(),
                            parts.stream()
                                    .map(part -> part.getPoint().intValue())
                                    .toList(),
                            Instant.ofEpochMilli(parts.stream()
                                    .mapToLong(CorrectionPartRecord::getFromTime)
                                    .min()
                                    .orElse(0)),
                            Instant.ofEpochMilli(parts.stream()
                                    .mapToLong(CorrectionPartRecord::getUntilTime)
                                    .max()
                                    .orElse(0)),
                            parts.stream()
                                    .mapToLong(
                                            part -> unpacked(part.getBefore()).size())
                                    .sum(),
                            parts.stream()
                                    .mapToLong(part -> unpacked(part.getAfter()).size())
                                    .sum(),
                            row.getUndoneAt() == null ? null : Instant.ofEpochMilli(row.getUndoneAt()),
                            row.getUndoneBy()));
                });
        return found;
    }

    private static byte @Nullable [] packed(SeriesSlice slice) {
        if (slice.size() == 0) {
            return null;
        }
        try (ChunkCodec codec = new ChunkCodec()) {
            return codec.encode(slice);
        }
    }

    private static SeriesSlice unpacked(byte @Nullable [] packed) {
        return packed == null ? SeriesSlice.empty() : ChunkCodec.decode(packed);
    }
}
