package org.openpasture.store.picture;

import static org.openpasture.store.generated.registrydb.Tables.PICTURE;

import java.util.Optional;
import org.openpasture.store.registry.RegistryDatabase;

/** Keeps one picture of each place that has one. Any thread. */
public final class PictureStore {
    private final RegistryDatabase database;

    /**
     * A picture.
     *
     * @param digest by which it is told from others
     * @param type its media type
     */
    public record Kept(String digest, String type, byte[] content) {}

    public PictureStore(RegistryDatabase database) {
        this.database = database;
    }

    /** The picture of a place. */
    public Optional<Kept> find(String placeId) {
        return database.read()
                .selectFrom(PICTURE)
                .where(PICTURE.PLACE_ID.eq(placeId))
                .fetchOptional(row -> new Kept(row.getDigest(), row.getType(), row.getContent()));
    }

    /** Keeps a picture in place of the one before. */
    public void save(String placeId, Kept picture) {
        database.write(dsl -> dsl.insertInto(PICTURE)
                .set(PICTURE.PLACE_ID, placeId)
                .set(PICTURE.DIGEST, picture.digest())
                .set(PICTURE.TYPE, picture.type())
                .set(PICTURE.CONTENT, picture.content())
                .onConflict(PICTURE.PLACE_ID)
                .doUpdate()
                .set(PICTURE.DIGEST, picture.digest())
                .set(PICTURE.TYPE, picture.type())
                .set(PICTURE.CONTENT, picture.content())
                .execute());
    }

    /** Removes the picture of a place. */
    public void remove(String placeId) {
        database.write(dsl ->
                dsl.deleteFrom(PICTURE).where(PICTURE.PLACE_ID.eq(placeId)).execute());
    }
}
