package org.openpasture.store.people;

import static org.openpasture.store.generated.registrydb.Tables.ANSWERED;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.store.generated.registrydb.tables.records.AnsweredRecord;
import org.openpasture.store.registry.RegistryDatabase;

/**
 * What was answered to requests that carried a key of their own, so that the same request is carried out once. Kept for
 * a day, sealed, since an answer may hold a token. Safe for any thread.
 */
public final class AnsweredStore {
    public static final Duration KEPT = Duration.ofDays(1);
    private final RegistryDatabase database;

    public AnsweredStore(RegistryDatabase database) {
        this.database = database;
    }

    /**
     * A request that was begun.
     *
     * @param fingerprint of its address and its body
     * @param status of its answer; null while there is none
     * @param body of its answer; null if it was too long to be kept
     */
    public record Answered(
            String fingerprint,
            @Nullable Integer status,
            @Nullable String location,
            byte @Nullable [] body) {}

    /** Writes down that a request begins, unless its key was used; then says for what. */
    public Optional<Answered> begin(String personId, String key, String fingerprint, Instant now) {
        return database.write(dsl -> {
            dsl.deleteFrom(ANSWERED)
                    .where(ANSWERED.BEGUN_AT.lt(now.minus(KEPT).toEpochMilli()))
                    .execute();
            int begun = dsl.insertInto(
                            ANSWERED, ANSWERED.PERSON_ID, ANSWERED.KEY, ANSWERED.FINGERPRINT, ANSWERED.BEGUN_AT)
                    .values(personId, key, fingerprint, now.toEpochMilli())
                    .onConflictDoNothing()
                    .execute();
            return begun == 1
                    ? Optional.empty()
                    : dsl.selectFrom(ANSWERED)
                            .where(ANSWERED.PERSON_ID.eq(personId), ANSWERED.KEY.eq(key))
                            .fetchOptional(this::answered);
        });
    }

    private Answered answered(AnsweredRecord row) {
        byte[] sealed = row.getSealed();
        return new Answered(
                row.getFingerprint(),
                row.getStatus() == null ? null : row.getStatus().intValue(),
                row.getLocation(),
                sealed == null ? null : database.secrets().open(sealed));
    }

    /** Keeps the answer. */
    public void end(String personId, String key, int status, @Nullable String location, byte @Nullable [] body) {
        database.write(dsl -> dsl.update(ANSWERED)
                .set(ANSWERED.STATUS, (long) status)
                .set(ANSWERED.LOCATION, location)
                .set(ANSWERED.SEALED, body == null ? null : database.secrets().seal(body))
                .where(ANSWERED.PERSON_ID.eq(personId), ANSWERED.KEY.eq(key))
                .execute());
    }

    /** Forgets a request that changed nothing, so that its key can be used again. */
    public void forget(String personId, String key) {
        database.write(dsl -> dsl.deleteFrom(ANSWERED)
                .where(ANSWERED.PERSON_ID.eq(personId), ANSWERED.KEY.eq(key))
                .execute());
    }
}
