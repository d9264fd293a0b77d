package org.openpasture.store.people;

import static org.openpasture.store.generated.registrydb.Tables.CREDENTIAL;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.openpasture.store.registry.RegistryDatabase;

/** Second factors of people. Secrets are sealed, of recovery codes only hashes are kept. Safe for any thread. */
public final class SecondFactorStore {
    private final RegistryDatabase database;

    public SecondFactorStore(RegistryDatabase database) {
        this.database = database;
    }

    /**
     * A second factor.
     *
     * @param secret of the authenticator
     * @param confirmed whether a code of it was entered, so that sign-ins ask for one
     * @param recoveryCodes how many are left
     */
    public record SecondFactor(byte[] secret, boolean confirmed, int recoveryCodes) {}

    public Optional<SecondFactor> find(String personId) {
        return database.read()
                .selectFrom(CREDENTIAL)
                .where(CREDENTIAL.PERSON_ID.eq(personId), CREDENTIAL.TOTP.isNotNull())
                .fetchOptional(row -> new SecondFactor(
                        database.secrets().open(row.getTotp()),
                        row.getTotpConfirmed() != 0,
                        codes(row.getRecoveryCodes()).size()));
    }

    /** Begins with a secret that has to be confirmed; replaces one that was not. */
    public void begin(String personId, byte[] secret) {
        database.write(dsl -> dsl.update(CREDENTIAL)
                .set(CREDENTIAL.TOTP, database.secrets().seal(secret))
                .set(CREDENTIAL.TOTP_CONFIRMED, 0L)
                .set(CREDENTIAL.TOTP_STEP, 0L)
                .set(CREDENTIAL.RECOVERY_CODES, "")
                .where(CREDENTIAL.PERSON_ID.eq(personId), CREDENTIAL.TOTP_CONFIRMED.eq(0L))
                .execute());
    }

    /** From now on sign-ins ask for it. */
    public void confirm(String personId, List<String> recoveryHashes) {
        database.write(dsl -> dsl.update(CREDENTIAL)
                .set(CREDENTIAL.TOTP_CONFIRMED, 1L)
                .set(CREDENTIAL.RECOVERY_CODES, String.join(" ", recoveryHashes))
                .where(CREDENTIAL.PERSON_ID.eq(personId))
                .execute());
    }

    /** Uses a time step, once; of several who try at once one does. */
    public boolean useStep(String personId, long step) {
        return database.write(dsl -> dsl.update(CREDENTIAL)
                        .set(CREDENTIAL.TOTP_STEP, step)
                        .where(CREDENTIAL.PERSON_ID.eq(personId), CREDENTIAL.TOTP_STEP.lt(step))
                        .execute()
                > 0);
    }

    /** Uses a recovery code, once. */
    public boolean useRecoveryCode(String personId, String hash) {
        return database.write(dsl -> {
            List<String> left = dsl.select(CREDENTIAL.RECOVERY_CODES)
                    .from(CREDENTIAL)
                    .where(CREDENTIAL.PERSON_ID.eq(personId))
                    .fetchOptional(CREDENTIAL.RECOVERY_CODES)
                    .map(SecondFactorStore::codes)
                    .orElse(List.of());
            if (!left.contains(hash)) {
                return false;
            }
            dsl.update(CREDENTIAL)
                    .set(
                            CREDENTIAL.RECOVERY_CODES,
                            left.stream().filter(one -> !one.equals(hash)).collect(Collectors.joining(" ")))
                    .where(CREDENTIAL.PERSON_ID.eq(personId))
                    .execute();
            return true;
        });
    }

    /** Sign-ins ask for no code any more. */
    public void remove(String personId) {
        database.write(dsl -> dsl.update(CREDENTIAL)
                .setNull(CREDENTIAL.TOTP)
                .set(CREDENTIAL.TOTP_CONFIRMED, 0L)
                .set(CREDENTIAL.TOTP_STEP, 0L)
                .set(CREDENTIAL.RECOVERY_CODES, "")
                .where(CREDENTIAL.PERSON_ID.eq(personId))
                .execute());
    }

    private static List<String> codes(String kept) {
        return Arrays.stream(kept.split(" ")).filter(code -> !code.isEmpty()).toList();
    }
}
