package org.openpasture.store.logbook;

import static org.openpasture.store.generated.registrydb.Tables.LOGBOOK_ENTRY;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.openpasture.core.logbook.LogEntry;
import org.openpasture.store.generated.registrydb.tables.records.LogbookEntryRecord;
import org.openpasture.store.registry.RegistryDatabase;
import org.openpasture.store.sqlite.Backwards;

/** Keeps what people wrote. What was removed can be restored until it is erased. Any thread. */
public final class LogbookStore {
    private final RegistryDatabase database;

    public LogbookStore(RegistryDatabase database) {
        this.database = database;
    }

    /** Writes an entry; its id is ignored, and the one it got is returned. */
    public long add(LogEntry entry) {
        return database.write(dsl -> dsl.insertInto(LOGBOOK_ENTRY)
                .set(LOGBOOK_ENTRY.PLACE_ID, entry.placeId())
                .set(LOGBOOK_ENTRY.POINT_ID, entry.pointId())
                .set(LOGBOOK_ENTRY.ANSWERS, entry.answers())
                .set(LOGBOOK_ENTRY.AT, entry.at().toEpochMilli())
                .set(LOGBOOK_ENTRY.TEXT, entry.text())
                .set(LOGBOOK_ENTRY.PERSON_ID, entry.personId())
                .set(LOGBOOK_ENTRY.PERSON_NAME, entry.personName())
                .set(LOGBOOK_ENTRY.WRITTEN_AT, entry.writtenAt().toEpochMilli())
                .returningResult(LOGBOOK_ENTRY.ID)
                .fetchSingle()
                .value1());
    }

    /** Changes what an entry says and which moment it is about; nothing happens if it was removed. */
    public void change(long id, Instant at, String text, Instant now) {
        database.write(dsl -> dsl.update(LOGBOOK_ENTRY)
                .set(LOGBOOK_ENTRY.AT, at.toEpochMilli())
                .set(LOGBOOK_ENTRY.TEXT, text)
                .set(LOGBOOK_ENTRY.CHANGED_AT, now.toEpochMilli())
                .where(LOGBOOK_ENTRY.ID.eq(id), LOGBOOK_ENTRY.REMOVED_AT.isNull())
                .execute());
    }

    /** Removes an entry. */
    public void remove(long id, Instant now) {
        database.write(dsl -> dsl.update(LOGBOOK_ENTRY)
                .set(LOGBOOK_ENTRY.REMOVED_AT, now.toEpochMilli())
                .where(LOGBOOK_ENTRY.ID.eq(id), LOGBOOK_ENTRY.REMOVED_AT.isNull())
                .execute());
    }

    /** Brings an entry back that was removed. */
    public void restore(long id) {
        database.write(dsl -> dsl.update(LOGBOOK_ENTRY)
                .setNull(LOGBOOK_ENTRY.REMOVED_AT)
                .where(LOGBOOK_ENTRY.ID.eq(id))
                .execute());
    }

    /** Erases what was removed before a moment, so many at most; returns how many went. */
    public int erase(Instant before, int most) {
        return database.write(dsl -> dsl.deleteFrom(LOGBOOK_ENTRY)
                .where(LOGBOOK_ENTRY.ID.in(dsl.select(LOGBOOK_ENTRY.ID)
                        .from(LOGBOOK_ENTRY)
                        .where(LOGBOOK_ENTRY.REMOVED_AT.lt(before.toEpochMilli()))
                        .limit(most)))
                .execute());
    }

    /** An entry. */
    public Optional<LogEntry> find(long id) {
        return find(id, false);
    }

    /** An entry that was removed. */
    public Optional<LogEntry> findRemoved(long id) {
        return find(id, true);
    }

    private Optional<LogEntry> find(long id, boolean isRemoved) {
        return database.read()
                .selectFrom(LOGBOOK_ENTRY)
                .where(
                        LOGBOOK_ENTRY.ID.eq(id),
                        isRemoved ? LOGBOOK_ENTRY.REMOVED_AT.isNotNull() : LOGBOOK_ENTRY.REMOVED_AT.isNull())
                .fetchOptional(LogbookStore::entry);
    }

    /** Entries, the newest first by the moment that they are about. */
    public List<LogEntry> entries(Backwards from) {
        return database.read()
                .selectFrom(LOGBOOK_ENTRY)
                .where(from.where(LOGBOOK_ENTRY.AT, LOGBOOK_ENTRY.ID), LOGBOOK_ENTRY.REMOVED_AT.isNull())
                .orderBy(Backwards.order(LOGBOOK_ENTRY.AT, LOGBOOK_ENTRY.ID))
                .limit(from.most())
                .fetch(LogbookStore::entry);
    }

    private static LogEntry entry(LogbookEntryRecord row) {
        return new LogEntry(
                row.getId(),
                row.getPlaceId(),
                row.getPointId(),
                row.getAnswers(),
                Instant.ofEpochMilli(row.getAt()),
                row.getText(),
                row.getPersonId(),
                row.getPersonName(),
                Instant.ofEpochMilli(row.getWrittenAt()),
                row.getChangedAt() == null ? null : Instant.ofEpochMilli(row.getChangedAt()));
    }
}
