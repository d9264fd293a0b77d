package org.openpasture.store.setting;

import static org.openpasture.store.generated.registrydb.Tables.SECRET;
import static org.openpasture.store.generated.registrydb.Tables.SETTING;

import java.util.Optional;
import org.openpasture.store.registry.RegistryDatabase;
import tools.jackson.databind.json.JsonMapper;

/** Settings of the instance by name, and secrets by owner; secrets are encrypted. */
public final class SettingStore {
    private final RegistryDatabase database;
    private final JsonMapper mapper = JsonMapper.builder().build();

    public SettingStore(RegistryDatabase database) {
        this.database = database;
    }

    public <T> Optional<T> find(String name, Class<T> type) {
        return database.read()
                .selectFrom(SETTING)
                .where(SETTING.NAME.eq(name))
                .fetchOptional(row -> mapper.readValue(row.getBody(), type));
    }

    public void save(String name, Object value) {
        String body = mapper.writeValueAsString(value);
        database.write(dsl -> dsl.insertInto(SETTING, SETTING.NAME, SETTING.BODY)
                .values(name, body)
                .onConflict(SETTING.NAME)
                .doUpdate()
                .set(SETTING.BODY, body)
                .execute());
    }

    /** Forgets a setting. */
    public void remove(String name) {
        database.write(
                dsl -> dsl.deleteFrom(SETTING).where(SETTING.NAME.eq(name)).execute());
    }

    /** A secret of a device or of the instance. */
    public Optional<byte[]> secret(String ownerId, String name) {
        return database.read()
                .selectFrom(SECRET)
                .where(SECRET.OWNER_ID.eq(ownerId), SECRET.NAME.eq(name))
                .fetchOptional(row -> database.secrets().open(row.getSealed()));
    }

    public void saveSecret(String ownerId, String name, byte[] clear) {
        byte[] sealed = database.secrets().seal(clear);
        database.write(dsl -> dsl.insertInto(SECRET, SECRET.OWNER_ID, SECRET.NAME, SECRET.SEALED)
                .values(ownerId, name, sealed)
                .onConflict(SECRET.OWNER_ID, SECRET.NAME)
                .doUpdate()
                .set(SECRET.SEALED, sealed)
                .execute());
    }

    /** How many secrets an owner has. */
    public int countSecrets(String ownerId) {
        return database.read().fetchCount(SECRET, SECRET.OWNER_ID.eq(ownerId));
    }

    public void forgetSecret(String ownerId, String name) {
        database.write(dsl -> dsl.deleteFrom(SECRET)
                .where(SECRET.OWNER_ID.eq(ownerId), SECRET.NAME.eq(name))
                .execute());
    }

    public void forgetSecrets(String ownerId) {
        database.write(
                dsl -> dsl.deleteFrom(SECRET).where(SECRET.OWNER_ID.eq(ownerId)).execute());
    }
}
