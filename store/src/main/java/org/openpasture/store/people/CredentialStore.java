package org.openpasture.store.people;

import static org.openpasture.store.generated.registrydb.Tables.ACCESS_TOKEN;
import static org.openpasture.store.generated.registrydb.Tables.CREDENTIAL;
import static org.openpasture.store.generated.registrydb.Tables.INVITATION;
import static org.openpasture.store.generated.registrydb.Tables.PASSWORD_RESET;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.openpasture.core.access.Scope;
import org.openpasture.core.people.Right;
import org.openpasture.store.generated.registrydb.tables.records.AccessTokenRecord;
import org.openpasture.store.generated.registrydb.tables.records.InvitationRecord;
import org.openpasture.store.registry.RegistryDatabase;

/** Passwords, tokens and invitations; of each only a hash is kept. */
public final class CredentialStore {
    private final RegistryDatabase database;

    public CredentialStore(RegistryDatabase database) {
        this.database = database;
    }

    public Optional<String> passwordHash(String personId) {
        return database.read()
                .selectFrom(CREDENTIAL)
                .where(CREDENTIAL.PERSON_ID.eq(personId))
                .fetchOptional(row -> row.getPasswordHash());
    }

    public void savePasswordHash(String personId, String hash) {
        database.write(dsl -> dsl.insertInto(CREDENTIAL, CREDENTIAL.PERSON_ID, CREDENTIAL.PASSWORD_HASH)
                .values(personId, hash)
                .onConflict(CREDENTIAL.PERSON_ID)
                .doUpdate()
                .set(CREDENTIAL.PASSWORD_HASH, hash)
                .execute());
    }

    /**
     * A sign-in or a program's token.
     *
     * @param purpose "console", "client" or {@link #PROGRAM}
     * @param scope what it may use of the person's rights
     * @param usedAt the last use that was kept; uses soon after one another are kept once
     */
    public record AccessToken(
            String tokenHash,
            String personId,
            String purpose,
            String note,
            Scope scope,
            Instant createdAt,
            Instant expiresAt,
            Instant usedAt) {
        public static final String PROGRAM = "program";

        public boolean isProgram() {
            return purpose.equals(PROGRAM);
        }

        /**
         * Whether it holds.
         *
         * @param idle after so long without use a sign-in has ended; a program may rest longer
         */
        public boolean isOpenAt(Instant now, Duration idle) {
            return now.isBefore(expiresAt) && (isProgram() || now.isBefore(usedAt.plus(idle)));
        }
    }

    public void saveToken(AccessToken token) {
        database.write(dsl -> {
            dsl.deleteFrom(ACCESS_TOKEN)
                    .where(ACCESS_TOKEN.EXPIRES_AT.lt(token.createdAt().toEpochMilli()))
                    .execute();
            return dsl.insertInto(
                            ACCESS_TOKEN,
                            ACCESS_TOKEN.TOKEN_HASH,
                            ACCESS_TOKEN.PERSON_ID,
                            ACCESS_TOKEN.PURPOSE,
                            ACCESS_TOKEN.NOTE,
                            ACCESS_TOKEN.SCOPE,
                            ACCESS_TOKEN.PLACES,
                            ACCESS_TOKEN.CREATED_AT,
                            ACCESS_TOKEN.EXPIRES_AT,
                            ACCESS_TOKEN.USED_AT)
                    .values(
                            token.tokenHash(),
                            token.personId(),
                            token.purpose(),
                            token.note(),
                            token.scope().most().id(),
                            String.join(" ", token.scope().places()),
                            token.createdAt().toEpochMilli(),
                            token.expiresAt().toEpochMilli(),
                            token.usedAt().toEpochMilli())
                    .execute();
        });
    }

    public Optional<AccessToken> token(String tokenHash) {
        return database.read()
                .selectFrom(ACCESS_TOKEN)
                .where(ACCESS_TOKEN.TOKEN_HASH.eq(tokenHash))
                .fetchOptional(CredentialStore::token);
    }

    private static AccessToken token(AccessTokenRecord row) {
        return new AccessToken(
                row.getTokenHash(),
                row.getPersonId(),
                row.getPurpose(),
                row.getNote(),
                new Scope(
                        Right.of(row.getScope()),
                        row.getPlaces().isEmpty()
                                ? List.of()
                                : List.of(row.getPlaces().split(" "))),
                Instant.ofEpochMilli(row.getCreatedAt()),
                Instant.ofEpochMilli(row.getExpiresAt()),
                Instant.ofEpochMilli(row.getUsedAt() == null ? row.getCreatedAt() : row.getUsedAt()));
    }

    /** Keeps when a token was used last. */
    public void used(String tokenHash, Instant at) {
        database.write(dsl -> dsl.update(ACCESS_TOKEN)
                .set(ACCESS_TOKEN.USED_AT, at.toEpochMilli())
                .where(ACCESS_TOKEN.TOKEN_HASH.eq(tokenHash))
                .execute());
    }

    public void forgetToken(String tokenHash) {
        database.write(dsl -> dsl.deleteFrom(ACCESS_TOKEN)
                .where(ACCESS_TOKEN.TOKEN_HASH.eq(tokenHash))
                .execute());
    }

    /** All sign-ins of a person, the newest first. */
    public List<AccessToken> tokensOf(String personId) {
        return database.read()
                .selectFrom(ACCESS_TOKEN)
                .where(ACCESS_TOKEN.PERSON_ID.eq(personId))
                .orderBy(ACCESS_TOKEN.CREATED_AT.desc())
                .fetch(CredentialStore::token);
    }

    public void forgetTokensOf(String personId) {
        database.write(dsl -> dsl.deleteFrom(ACCESS_TOKEN)
                .where(ACCESS_TOKEN.PERSON_ID.eq(personId))
                .execute());
    }

    public void forgetPassword(String personId) {
        database.write(dsl -> dsl.deleteFrom(CREDENTIAL)
                .where(CREDENTIAL.PERSON_ID.eq(personId))
                .execute());
    }

    /** Keeps a code for another password; of a person the newest counts, and those that have expired go. */
    public void saveReset(String tokenHash, String personId, Instant now, Instant expiresAt) {
        database.write(dsl -> {
            dsl.deleteFrom(PASSWORD_RESET)
                    .where(PASSWORD_RESET.PERSON_ID.eq(personId).or(PASSWORD_RESET.EXPIRES_AT.lt(now.toEpochMilli())))
                    .execute();
            return dsl.insertInto(
                            PASSWORD_RESET,
                            PASSWORD_RESET.TOKEN_HASH,
                            PASSWORD_RESET.PERSON_ID,
                            PASSWORD_RESET.EXPIRES_AT)
                    .values(tokenHash, personId, expiresAt.toEpochMilli())
                    .execute();
        });
    }

    /** Whether there is a code of a person that expires after a moment. */
    public boolean hasReset(String personId, Instant after) {
        return database.read()
                .fetchExists(
                        PASSWORD_RESET,
                        PASSWORD_RESET.PERSON_ID.eq(personId),
                        PASSWORD_RESET.EXPIRES_AT.gt(after.toEpochMilli()));
    }

    /** The id of the person whom a code for another password belongs to; empty if it is not there, or has expired. */
    public Optional<String> reset(String tokenHash, Instant now) {
        return database.read()
                .selectFrom(PASSWORD_RESET)
                .where(PASSWORD_RESET.TOKEN_HASH.eq(tokenHash), PASSWORD_RESET.EXPIRES_AT.gt(now.toEpochMilli()))
                .fetchOptional(row -> row.getPersonId());
    }

    /** Uses a code up; of several who try at once one does. */
    public boolean takeReset(String tokenHash) {
        return database.write(dsl -> dsl.deleteFrom(PASSWORD_RESET)
                        .where(PASSWORD_RESET.TOKEN_HASH.eq(tokenHash))
                        .execute()
                > 0);
    }

    /** Somebody who was asked to join and has not answered. */
    public record Invitation(
            String id,
            String tokenHash,
            String name,
            String email,
            Right right,
            String targetId,
            String createdBy,
            Instant expiresAt) {}

    public void saveInvitation(Invitation invitation) {
        database.write(dsl -> dsl.insertInto(
                        INVITATION,
                        INVITATION.ID,
                        INVITATION.TOKEN_HASH,
                        INVITATION.NAME,
                        INVITATION.EMAIL,
                        INVITATION.ACCESS_RIGHT,
                        INVITATION.TARGET_ID,
                        INVITATION.CREATED_BY,
                        INVITATION.EXPIRES_AT)
                .values(
                        invitation.id(),
                        invitation.tokenHash(),
                        invitation.name(),
                        invitation.email(),
                        invitation.right().id(),
                        invitation.targetId(),
                        invitation.createdBy(),
                        invitation.expiresAt().toEpochMilli())
                .execute());
    }

    /**
     * Takes an invitation out, so that nobody else can take it up; of several who try at once one gets it.
     *
     * @return empty if it is not there, or has run out
     */
    public Optional<Invitation> takeInvitation(String tokenHash, Instant now) {
        return database.write(dsl -> dsl.deleteFrom(INVITATION)
                .where(INVITATION.TOKEN_HASH.eq(tokenHash))
                .and(INVITATION.EXPIRES_AT.gt(now.toEpochMilli()))
                .returning()
                .fetchOptional(CredentialStore::invitation));
    }

    public List<Invitation> invitations() {
        return database.read().selectFrom(INVITATION).fetch(CredentialStore::invitation);
    }

    public void forgetInvitation(String id) {
        database.write(
                dsl -> dsl.deleteFrom(INVITATION).where(INVITATION.ID.eq(id)).execute());
    }

    private static Invitation invitation(InvitationRecord row) {
        return new Invitation(
                row.getId(),
                row.getTokenHash(),
                row.getName(),
                row.getEmail(),
                Right.of(row.getAccessRight()),
                row.getTargetId(),
                row.getCreatedBy(),
                Instant.ofEpochMilli(row.getExpiresAt()));
    }
}
