package org.openpasture.store.telemetry;

import static org.openpasture.store.generated.telemetrydb.Tables.INBOX_ANSWER;

import java.time.Instant;
import java.util.Optional;
import java.util.function.Supplier;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;

/** Answers to posts by their Idempotency-Key. Any thread may read. */
public final class InboxAnswers {
    private final Supplier<DSLContext> reader;

    InboxAnswers(Supplier<DSLContext> reader) {
        this.reader = reader;
    }

    void keep(DSLContext dsl, KeptAnswer answer) {
        dsl.insertInto(
                        INBOX_ANSWER,
                        INBOX_ANSWER.INLET_ID,
                        INBOX_ANSWER.KEY,
                        INBOX_ANSWER.BODY_HASH,
                        INBOX_ANSWER.ANSWER,
                        INBOX_ANSWER.AT)
                .values(
                        answer.inletId(),
                        answer.key(),
                        answer.bodyHash(),
                        answer.answer(),
                        answer.at().toEpochMilli())
                .onConflictDoNothing()
                .execute();
    }

    /** Removes answers that are older than a moment, so many at most; returns how many went. */
    int erase(DSLContext dsl, Instant before, int most) {
        return dsl.deleteFrom(INBOX_ANSWER)
                .where(DSL.row(INBOX_ANSWER.INLET_ID, INBOX_ANSWER.KEY)
                        .in(DSL.select(INBOX_ANSWER.INLET_ID, INBOX_ANSWER.KEY)
                                .from(INBOX_ANSWER)
                                .where(INBOX_ANSWER.AT.lt(before.toEpochMilli()))
                                .limit(most)))
                .execute();
    }

    /** What was answered to a post with a key. */
    public Optional<KeptAnswer> find(String inletId, String key) {
        return reader.get()
                .selectFrom(INBOX_ANSWER)
                .where(INBOX_ANSWER.INLET_ID.eq(inletId))
                .and(INBOX_ANSWER.KEY.eq(key))
                .fetchOptional(row -> new KeptAnswer(
                        row.getInletId(),
                        row.getKey(),
                        row.getBodyHash(),
                        row.getAnswer(),
                        Instant.ofEpochMilli(row.getAt())));
    }
}
