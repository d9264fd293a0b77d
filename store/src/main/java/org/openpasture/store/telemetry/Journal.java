package org.openpasture.store.telemetry;

import static org.openpasture.store.generated.telemetrydb.Tables.JOURNAL;
import static org.openpasture.store.generated.telemetrydb.Tables.SEALED;

import java.sql.PreparedStatement;
import java.time.Clock;
import java.util.List;
import java.util.function.BiConsumer;
import org.jooq.Cursor;
import org.jooq.DSLContext;
import org.jooq.Record2;
import org.jooq.SQLDialect;
import org.jooq.impl.DSL;
import org.openpasture.core.judging.Event;
import org.openpasture.core.judging.JournalCodec;
import org.openpasture.store.sqlite.SqliteFile;

/**
 * What was committed and is not yet in chunks, one row a commit. Its numbers go on for ever; rows leave it when they
 * are sealed and judged.
 */
final class Journal {
    private static final int ROWS_AT_ONCE = 16;
    /**
     * Written by jOOQ once, bound by JDBC: with thousands of small commits in a second, writing it anew was a third of
     * the work.
     */
    private static final String INSERT = DSL.using(SQLDialect.SQLITE)
            .insertInto(JOURNAL, JOURNAL.SEQ, JOURNAL.WRITTEN_AT, JOURNAL.EVENTS)
            .values((Long) null, null, null)
            .getSQL();

    private final SqliteFile file;
    private final Clock clock;
    private long last;
    private long first;

    Journal(SqliteFile file, Clock clock) {
        this.file = file;
        this.clock = clock;
        long stored = orZero(file.writer()
                .select(DSL.max(JOURNAL.SEQ))
                .from(JOURNAL)
                .fetchSingle()
                .value1());
        last = Math.max(stored, sealedUpTo());
        first = orZero(file.writer()
                .select(DSL.min(JOURNAL.SEQ))
                .from(JOURNAL)
                .fetchSingle()
                .value1());
    }

    private static long orZero(@org.jspecify.annotations.Nullable Long value) {
        return value == null ? 0 : value;
    }

    /**
     * Writes a row and returns its number; in the transaction that runs on the writing connection, or in one of its
     * own.
     */
    long append(List<Event> events) {
        last++;
        byte[] row = JournalCodec.encode(events);
        file.writer().connection(connection -> {
            try (PreparedStatement insert = connection.prepareStatement(INSERT)) {
                insert.setLong(1, last);
                insert.setLong(2, clock.millis());
                insert.setBytes(3, row);
                insert.executeUpdate();
            }
        });
        return last;
    }

    /** A transaction was rolled back: the numbers that it took are free. */
    void backTo(long seq) {
        last = seq;
    }

    long last() {
        return last;
    }

    /** The row up to which all readings are in chunks. */
    long sealedUpTo() {
        return file.reader()
                .select(SEALED.JOURNAL_SEQ)
                .from(SEALED)
                .fetchOptional(SEALED.JOURNAL_SEQ)
                .orElse(0L);
    }

    void setSealedUpTo(DSLContext dsl, long seq) {
        dsl.insertInto(SEALED, SEALED.ID, SEALED.JOURNAL_SEQ)
                .values(1L, seq)
                .onConflict(SEALED.ID)
                .doUpdate()
                .set(SEALED.JOURNAL_SEQ, seq)
                .execute();
    }

    /** Removes some of the rows up to one; returns whether there are more to remove. */
    boolean removeSome(DSLContext dsl, long upTo) {
        if (first == 0 || first > upTo) {
            first = orZero(
                    dsl.select(DSL.min(JOURNAL.SEQ)).from(JOURNAL).fetchSingle().value1());
            if (first == 0 || first > upTo) {
                return false;
            }
        }
        long end = Math.min(upTo, first + ROWS_AT_ONCE - 1);
        dsl.deleteFrom(JOURNAL).where(JOURNAL.SEQ.between(first, end)).execute();
        first = end + 1;
        return first <= upTo;
    }

    /** Reads the rows after one, in order and with constant memory. */
    void read(long afterSeq, BiConsumer<Long, List<Event>> consumer) {
        try (Cursor<Record2<Long, byte[]>> rows = file.reader()
                .select(JOURNAL.SEQ, JOURNAL.EVENTS)
                .from(JOURNAL)
                .where(JOURNAL.SEQ.gt(afterSeq))
                .orderBy(JOURNAL.SEQ)
                .fetchLazy()) {
            rows.forEach(row -> consumer.accept(row.value1(), JournalCodec.decode(row.value2())));
        }
    }
}
