package org.openpasture.store.registry;

import static org.openpasture.store.generated.registrydb.Tables.ENTITY;
import static org.openpasture.store.generated.registrydb.Tables.TRAIL;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Supplier;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.SortField;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.Registry;
import org.openpasture.store.sqlite.Backwards;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/**
 * Keeps the registry: an immutable picture in memory, written to SQLite in the same step in which it is replaced.
 * {@link #now} costs nothing; changes take turns.
 */
public final class RegistryStore {
    private static final Logger LOG = LoggerFactory.getLogger(RegistryStore.class);
    private final RegistryDatabase database;
    private final Clock clock;
    private final Supplier<String> source;
    private final JsonMapper mapper =
            JsonMapper.builder().addHandler(new UnknownPanels()).build();
    private final List<Consumer<Registry>> listeners = new CopyOnWriteArrayList<>();
    private final Queue<Registry> untold = new ConcurrentLinkedQueue<>();
    private final ReentrantLock telling = new ReentrantLock();
    private volatile Registry registry;
    private volatile Consumer<Registry> guard = now -> {};

    /** Reads everything that is registered. */
    public RegistryStore(RegistryDatabase database, Clock clock) {
        this(database, clock, () -> "");
    }

    /**
     * The same.
     *
     * @param source the address that whoever changes something now asks from; empty for the service itself
     */
    public RegistryStore(RegistryDatabase database, Clock clock, Supplier<String> source) {
        this.database = database;
        this.clock = clock;
        this.source = source;
        List<Entity> entities = database.read()
                .selectFrom(ENTITY)
                .orderBy(ENTITY.POSITION, ENTITY.ID)
                .fetch(row ->
                        mapper.readValue(row.getBody(), Kind.ofId(row.getKind()).type()));
        this.registry = Registry.of(entities);
    }

    /** The picture as it is now. */
    public Registry now() {
        return registry;
    }

    /** Is told of each new picture, in order, after it is on disk. */
    public void onChange(Consumer<Registry> listener) {
        listeners.add(listener);
    }

    /** Is asked before each change, while nobody else changes anything; what it throws ends the change. */
    public void guard(Consumer<Registry> guard) {
        this.guard = guard;
    }

    /** Changes without a look at what is there. */
    public Registry change(String person, List<Change> changes) {
        return change(person, picture -> changes);
    }

    /**
     * Changes what is registered. The function sees the newest picture and nobody changes it meanwhile; if it throws,
     * nothing happens. When this returns the change is on disk.
     *
     * @param person who does it, for the trail
     */
    public Registry change(String person, Function<Registry, List<Change>> change) {
        Registry result = database.exclusively(() -> {
            Registry before = registry;
            guard.accept(before);
            List<Change> changes = change.apply(before);
            if (changes.isEmpty()) {
                return before;
            }
            Registry after = before.with(changes);
            database.write(dsl -> {
                changes.forEach(step -> write(dsl, before, step, person));
                return changes.size();
            });
            registry = after;
            untold.add(after);
            return after;
        });
        tell();
        return result;
    }

    /**
     * Tells of the pictures in their order, one thread at a time, and without the database's monitor, so that whoever
     * is told may write. A listener that changes something itself is told of that after the others heard of this.
     */
    private void tell() {
        if (telling.isHeldByCurrentThread()) {
            return;
        }
        telling.lock();
        try {
            for (Registry next = untold.poll(); next != null; next = untold.poll()) {
                for (Consumer<Registry> listener : listeners) {
                    tell(listener, next);
                }
            }
        } finally {
            telling.unlock();
        }
    }

    private static void tell(Consumer<Registry> listener, Registry next) {
        try {
            listener.accept(next);
        } catch (RuntimeException e) {
            LOG.error("a change of what is registered could not be told of", e);
        }
    }

    private void write(DSLContext dsl, Registry before, Change change, String person) {
        Kind kind =
                switch (change) {
                    case Change.Put put -> Kind.of(put.entity());
                    case Change.Remove remove -> remove.kind();
                };
        String id =
                switch (change) {
                    case Change.Put put -> put.entity().id();
                    case Change.Remove remove -> remove.id();
                };
        String old = before.find(kind, id).map(mapper::writeValueAsString).orElse(null);
        String body =
                switch (change) {
                    case Change.Put put -> mapper.writeValueAsString(put.entity());
                    case Change.Remove remove -> null;
                };
        if (body == null) {
            dsl.deleteFrom(ENTITY)
                    .where(ENTITY.KIND.eq(kind.id()), ENTITY.ID.eq(id))
                    .execute();
        } else {
            dsl.insertInto(ENTITY, ENTITY.KIND, ENTITY.ID, ENTITY.BODY, ENTITY.POSITION)
                    .values(kind.id(), id, body, clock.millis())
                    .onConflict(ENTITY.KIND, ENTITY.ID)
                    .doUpdate()
                    .set(ENTITY.BODY, body)
                    .execute();
        }
        trail(dsl, person, kind.id(), id, old, body);
    }

    /** Removes the oldest entries of the trail from before a moment, so many at most; returns how many went. */
    public int eraseTrail(Instant before, int most) {
        return database.write(dsl -> dsl.deleteFrom(TRAIL)
                .where(TRAIL.ID.in(
                        DSL.select(TRAIL.ID).from(TRAIL).orderBy(TRAIL.ID).limit(most)))
                .and(TRAIL.AT.lt(before.toEpochMilli()))
                .execute());
    }

    /** Writes down what somebody did that changes nothing that is registered, such as a sign-in. */
    public void note(String person, String kind, String id, String what) {
        database.write(dsl -> trail(dsl, person, kind, id, null, mapper.writeValueAsString(Map.of("what", what))));
    }

    private int trail(
            DSLContext dsl, String person, String kind, String id, @Nullable String old, @Nullable String body) {
        return dsl.insertInto(
                        TRAIL,
                        TRAIL.AT,
                        TRAIL.PERSON,
                        TRAIL.KIND,
                        TRAIL.ENTITY_ID,
                        TRAIL.BEFORE,
                        TRAIL.AFTER,
                        TRAIL.SOURCE)
                .values(clock.millis(), person, kind, id, old, body, source.get())
                .execute();
    }

    /**
     * Which changes are looked for; what is null or empty is not asked for.
     *
     * @param person by this name
     * @param kind of this kind of thing
     * @param id of this thing
     * @param after older than the one with this number
     * @param limit at most so many
     */
    public record TrailQuery(
            @Nullable String person,
            @Nullable String kind,
            @Nullable String id,
            @Nullable Instant since,
            @Nullable Instant until,
            @Nullable Long after,
            int limit) {}

    /** The newest changes first. */
    public List<TrailEntry> trail(TrailQuery query) {
        Condition wanted = DSL.noCondition();
        if (query.person() != null) {
            wanted = wanted.and(TRAIL.PERSON.equalIgnoreCase(query.person()));
        }
        if (query.kind() != null) {
            wanted = wanted.and(TRAIL.KIND.eq(query.kind()));
        }
        if (query.id() != null) {
            wanted = wanted.and(TRAIL.ENTITY_ID.eq(query.id()));
        }
        if (query.since() != null) {
            wanted = wanted.and(TRAIL.AT.ge(query.since().toEpochMilli()));
        }
        if (query.until() != null) {
            wanted = wanted.and(TRAIL.AT.lt(query.until().toEpochMilli()));
        }
        if (query.after() != null) {
            wanted = wanted.and(TRAIL.ID.lt(query.after()));
        }
        return new ArrayList<>(trail(wanted, query.limit(), TRAIL.ID.desc()));
    }

    /** Changes by when they were made, the newest first. */
    public List<TrailEntry> trail(Backwards from) {
        return trail(from.where(TRAIL.AT, TRAIL.ID), from.most(), Backwards.order(TRAIL.AT, TRAIL.ID));
    }

    private List<TrailEntry> trail(Condition wanted, int most, SortField<?>... order) {
        return database.read()
                .selectFrom(TRAIL)
                .where(wanted)
                .orderBy(order)
                .limit(most)
                .fetch(row -> new TrailEntry(
                        row.getId(),
                        Instant.ofEpochMilli(row.getAt()),
                        row.getPerson(),
                        row.getKind(),
                        row.getEntityId(),
                        row.getBefore(),
                        row.getAfter(),
                        row.getSource()));
    }

    /** How a thing was once, since when, and by whom. */
    public record Past<T extends Entity>(T thing, Instant at, String person) {}

    /**
     * How a thing has been, the newest first, with how it is now; as far back as the trail is kept. What can no longer
     * be read is left out.
     */
    public <T extends Entity> List<Past<T>> past(Kind kind, Class<T> type, String id, int most) {
        List<Past<T>> found = new ArrayList<>();
        for (TrailEntry entry : trail(new TrailQuery(null, kind.id(), id, null, null, null, most))) {
            if (entry.after() != null) {
                try {
                    found.add(new Past<>(mapper.readValue(entry.after(), type), entry.at(), entry.person()));
                } catch (JacksonException e) {
                    LOG.debug("A former state of {} {} cannot be read", kind.id(), id, e);
                }
            }
        }
        return found;
    }

    /** A thing as it was written down, by which two states of it are told apart. */
    public Optional<String> written(Registry now, Kind kind, String id) {
        return now.find(kind, id).map(mapper::writeValueAsString);
    }

    /**
     * One change.
     *
     * @param before the entity as JSON, null if it was made
     * @param after the entity as JSON, null if it was removed
     * @param source the address that it was made from; empty if the service did it, or before that was kept
     */
    public record TrailEntry(
            long id,
            Instant at,
            String person,
            String kind,
            String entityId,
            @Nullable String before,
            @Nullable String after,
            String source) {}
}
