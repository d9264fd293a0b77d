package org.openpasture.store.outlet;

import static org.openpasture.store.generated.registrydb.Tables.OUTLET_ITEM;
import static org.openpasture.store.generated.registrydb.Tables.OUTLET_POSITION;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.openpasture.store.registry.RegistryDatabase;

/** What waits to be passed on, for each outlet in order; it outlasts crashes and absences of the outside. */
public final class OutletQueue {
    /** So many wait for one outlet; of more, the oldest give way. */
    public static final int MOST = 100_000;

    private final RegistryDatabase database;

    public OutletQueue(RegistryDatabase database) {
        this.database = database;
    }

    /** The row of the journal up to which was looked; empty before the first time. */
    public Optional<Long> position() {
        return database.read()
                .select(OUTLET_POSITION.JOURNAL_SEQ)
                .from(OUTLET_POSITION)
                .fetchOptional(OUTLET_POSITION.JOURNAL_SEQ);
    }

    /** Keeps items, and that the journal was looked at up to a row, in one step. */
    public void keep(List<OutletItem> items, long journalSeq) {
        database.write(dsl -> {
            items.forEach(item -> add(dsl, item));
            dsl.insertInto(OUTLET_POSITION, OUTLET_POSITION.ID, OUTLET_POSITION.JOURNAL_SEQ)
                    .values(1L, journalSeq)
                    .onConflict(OUTLET_POSITION.ID)
                    .doUpdate()
                    .set(OUTLET_POSITION.JOURNAL_SEQ, journalSeq)
                    .execute();
            return items.size();
        });
    }

    /** Keeps an item within somebody's transaction. */
    public void add(DSLContext dsl, OutletItem item) {
        dsl.insertInto(
                        OUTLET_ITEM,
                        OUTLET_ITEM.OUTLET_ID,
                        OUTLET_ITEM.KIND,
                        OUTLET_ITEM.TOPIC,
                        OUTLET_ITEM.BODY,
                        OUTLET_ITEM.CREATED_AT)
                .values(
                        item.outletId(),
                        item.kind(),
                        item.topic(),
                        item.body(),
                        item.createdAt().toEpochMilli())
                .execute();
    }

    /** The oldest that wait for an outlet. */
    public List<OutletItem> oldest(String outletId, int most) {
        return database.read()
                .selectFrom(OUTLET_ITEM)
                .where(OUTLET_ITEM.OUTLET_ID.eq(outletId))
                .orderBy(OUTLET_ITEM.ID)
                .limit(most)
                .fetch(row -> new OutletItem(
                        row.getId(),
                        row.getOutletId(),
                        row.getKind(),
                        row.getTopic(),
                        row.getBody(),
                        Instant.ofEpochMilli(row.getCreatedAt())));
    }

    /** They were taken. */
    public void taken(Collection<Long> ids) {
        database.write(
                dsl -> dsl.deleteFrom(OUTLET_ITEM).where(OUTLET_ITEM.ID.in(ids)).execute());
    }

    /** How many wait. */
    public int count(String outletId) {
        return database.read().fetchCount(OUTLET_ITEM, OUTLET_ITEM.OUTLET_ID.eq(outletId));
    }

    /** Lets the oldest go that are more than {@link #MOST}; says how many. */
    public int trim(String outletId) {
        int over = count(outletId) - MOST;
        return over <= 0
                ? 0
                : database.write(dsl -> dsl.deleteFrom(OUTLET_ITEM)
                        .where(OUTLET_ITEM.ID.in(DSL.select(OUTLET_ITEM.ID)
                                .from(OUTLET_ITEM)
                                .where(OUTLET_ITEM.OUTLET_ID.eq(outletId))
                                .orderBy(OUTLET_ITEM.ID)
                                .limit(over)))
                        .execute());
    }

    /** An outlet is gone. */
    public void forget(String outletId) {
        database.write(dsl -> dsl.deleteFrom(OUTLET_ITEM)
                .where(OUTLET_ITEM.OUTLET_ID.eq(outletId))
                .execute());
    }
}
