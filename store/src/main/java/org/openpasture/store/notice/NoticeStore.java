package org.openpasture.store.notice;

import static org.openpasture.store.generated.registrydb.Tables.NOTICE;

import java.time.Instant;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Table;
import org.jooq.impl.DSL;
import org.openpasture.store.generated.registrydb.tables.records.NoticeRecord;
import org.openpasture.store.registry.RegistryDatabase;
import org.openpasture.store.sqlite.Backwards;

/** The outbox of messages to people. */
public final class NoticeStore {
    private static final int AT_ONCE = 5_000;
    private static final int MOST_OF_ONE = 200;
    private final RegistryDatabase database;

    public NoticeStore(RegistryDatabase database) {
        this.database = database;
    }

    /** Puts a notice into the outbox within somebody's transaction; a second one with the same id changes nothing. */
    public void add(DSLContext dsl, Notice notice) {
        dsl.insertInto(
                        NOTICE,
                        NOTICE.ID,
                        NOTICE.ALERT_ID,
                        NOTICE.RECIPIENT,
                        NOTICE.SUBJECT,
                        NOTICE.BODY,
                        NOTICE.STATE,
                        NOTICE.ATTEMPTS,
                        NOTICE.CREATED_AT,
                        NOTICE.NEXT_AT)
                .values(
                        notice.id(),
                        notice.alertId(),
                        notice.recipient(),
                        notice.subject(),
                        notice.body(),
                        notice.state().id(),
                        (long) notice.attempts(),
                        notice.createdAt().toEpochMilli(),
                        notice.nextAt().toEpochMilli())
                .onConflictDoNothing()
                .execute();
    }

    /** How the occasion of a notice begins that an alert is over; it stands after the alert in the notice's id. */
    public static final String OVER = "over/";

    /** Takes back what was to be told of an alert later, and was not tried yet; but not that it is over. */
    public void takeBack(DSLContext dsl, String alertId, Instant now) {
        dsl.deleteFrom(NOTICE)
                .where(NOTICE.ALERT_ID.eq(alertId), NOTICE.STATE.eq(Notice.State.WAITING.id()))
                .and(NOTICE.ATTEMPTS.eq(0L))
                .and(NOTICE.NEXT_AT.gt(now.toEpochMilli()))
                .and(NOTICE.ID.notLike(alertId + "/" + OVER + "%"))
                .execute();
    }

    /** Who was told of an alert. */
    public List<String> told(DSLContext dsl, String alertId) {
        return dsl.selectDistinct(NOTICE.RECIPIENT)
                .from(NOTICE)
                .where(NOTICE.ALERT_ID.eq(alertId))
                .orderBy(NOTICE.RECIPIENT)
                .fetch(NOTICE.RECIPIENT);
    }

    /** One by its id. */
    public Optional<Notice> find(String id) {
        return database.read().selectFrom(NOTICE).where(NOTICE.ID.eq(id)).fetchOptional(NoticeStore::notice);
    }

    /** Waiting notices whose time has come, the oldest first; of one address no more than hold up no other. */
    public List<Notice> due(Instant now) {
        Field<Integer> place = DSL.rowNumber()
                .over(DSL.partitionBy(NOTICE.RECIPIENT).orderBy(NOTICE.CREATED_AT, NOTICE.ID))
                .as("place");
        Table<?> waiting = DSL.select(NOTICE.ID.as("waiting"), place)
                .from(NOTICE)
                .where(NOTICE.STATE.eq(Notice.State.WAITING.id()))
                .and(NOTICE.NEXT_AT.le(now.toEpochMilli()))
                .asTable("waiting");
        return database.read()
                .selectFrom(NOTICE)
                .where(NOTICE.ID.in(DSL.select(DSL.field("waiting", String.class))
                        .from(waiting)
                        .where(DSL.field("place", Integer.class).le(MOST_OF_ONE))))
                .orderBy(NOTICE.CREATED_AT, NOTICE.ID)
                .limit(AT_ONCE)
                .fetch(NoticeStore::notice);
    }

    public void delivered(String id, Instant at) {
        database.write(dsl -> dsl.update(NOTICE)
                .set(NOTICE.STATE, Notice.State.DELIVERED.id())
                .set(NOTICE.SENT_AT, at.toEpochMilli())
                .set(NOTICE.ATTEMPTS, NOTICE.ATTEMPTS.plus(1))
                .setNull(NOTICE.LAST_ERROR)
                // What is no alert is an invitation, and its link is for who got it alone.
                .set(NOTICE.BODY, DSL.when(NOTICE.ALERT_ID.isNull(), "").otherwise(NOTICE.BODY))
                .where(NOTICE.ID.eq(id))
                .execute());
    }

    /**
     * An attempt failed.
     *
     * @param next when to try again
     * @param giveUp whether to stop trying
     */
    public void failed(String id, String reason, Instant next, boolean giveUp) {
        Notice.State state = giveUp ? Notice.State.FAILED : Notice.State.WAITING;
        database.write(dsl -> dsl.update(NOTICE)
                .set(NOTICE.STATE, state.id())
                .set(NOTICE.LAST_ERROR, reason)
                .set(NOTICE.ATTEMPTS, NOTICE.ATTEMPTS.plus(1))
                .set(NOTICE.NEXT_AT, next.toEpochMilli())
                .where(NOTICE.ID.eq(id))
                .execute());
    }

    /** Lets everything that failed or waits be tried at once, as after the mail server was set right. */
    public void tryAgain(Instant now) {
        database.write(dsl -> dsl.update(NOTICE)
                .set(NOTICE.STATE, Notice.State.WAITING.id())
                .set(NOTICE.NEXT_AT, now.toEpochMilli())
                .where(NOTICE.STATE.ne(Notice.State.DELIVERED.id()), NOTICE.ATTEMPTS.gt(0L))
                .execute());
    }

    /** How many there are in each state. */
    public Map<Notice.State, Integer> counts() {
        Map<Notice.State, Integer> counts = new EnumMap<>(Notice.State.class);
        database.read()
                .select(NOTICE.STATE, DSL.count())
                .from(NOTICE)
                .groupBy(NOTICE.STATE)
                .forEach(row -> counts.put(Notice.State.valueOf(row.value1().toUpperCase(Locale.ROOT)), row.value2()));
        return counts;
    }

    /** The newest first. */
    public List<Notice> recent(int limit) {
        return list(DSL.noCondition(), limit);
    }

    /** A notice with the number of its row. */
    public record NumberedNotice(long number, Notice notice) {}

    /** Notices by when they were made, the newest first. */
    public List<NumberedNotice> made(Backwards from) {
        Field<Long> number = DSL.field("rowid", Long.class);
        return database.read()
                .select(NOTICE.asterisk(), number)
                .from(NOTICE)
                .where(from.where(NOTICE.CREATED_AT, number))
                .orderBy(Backwards.order(NOTICE.CREATED_AT, number))
                .limit(from.most())
                .fetch(row -> new NumberedNotice(row.get(number), notice(row.into(NOTICE))));
    }

    public List<Notice> ofAlert(String alertId) {
        return list(NOTICE.ALERT_ID.eq(alertId), 100);
    }

    private List<Notice> list(Condition condition, int limit) {
        return database.read()
                .selectFrom(NOTICE)
                .where(condition)
                .orderBy(NOTICE.CREATED_AT.desc())
                .limit(limit)
                .fetch(NoticeStore::notice);
    }

    private static Notice notice(NoticeRecord row) {
        return new Notice(
                row.getId(),
                row.getAlertId(),
                row.getRecipient(),
                row.getSubject(),
                row.getBody(),
                Notice.State.valueOf(row.getState().toUpperCase(Locale.ROOT)),
                row.getAttempts().intValue(),
                row.getLastError(),
                Instant.ofEpochMilli(row.getCreatedAt()),
                row.getSentAt() == null ? null : Instant.ofEpochMilli(row.getSentAt()),
                Instant.ofEpochMilli(row.getNextAt()));
    }
}
