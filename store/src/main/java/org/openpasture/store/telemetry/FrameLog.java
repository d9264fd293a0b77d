package org.openpasture.store.telemetry;

import static org.openpasture.store.generated.telemetrydb.Tables.FRAME;

import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.SQLDialect;
import org.jooq.impl.DSL;
import org.openpasture.core.frame.Cause;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.frame.Reception;
import org.openpasture.store.generated.telemetrydb.tables.records.FrameRecord;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** The frames that came in, with who heard them and what became of them. */
public final class FrameLog {
    private static final String INSERT = DSL.using(SQLDialect.SQLITE)
            .insertInto(
                    FRAME,
                    FRAME.ID,
                    FRAME.RECEIVED_AT,
                    FRAME.SENT_AT,
                    FRAME.KIND,
                    FRAME.DEVICE_ID,
                    FRAME.INLET_ID,
                    FRAME.ADDRESS,
                    FRAME.BYTES,
                    FRAME.PAYLOAD,
                    FRAME.PORT,
                    FRAME.COUNTER,
                    FRAME.OUTCOME,
                    FRAME.REASON,
                    FRAME.READ_VALUES,
                    FRAME.RECEPTIONS,
                    FRAME.CAUSE)
            .values(
                    (Long) null,
                    null,
                    null,
                    null,
                    null,
                    null,
                    null,
                    null,
                    null,
                    null,
                    null,
                    null,
                    null,
                    null,
                    null,
                    null)
            .getSQL();
    private final Supplier<DSLContext> reader;
    private final JsonMapper mapper = JsonMapper.builder().build();
    private long lastId = -1;

    FrameLog(Supplier<DSLContext> reader) {
        this.reader = reader;
    }

    /**
     * Keeps frames, and gives them their ids: counted here and not by the database, since one statement for all of them
     * is ten times as fast as one for each that has to tell its id. jOOQ writes the statement and leaves its values to
     * JDBC: made into expressions, sixteen for each frame, they took longer than the database. One thread at a time.
     */
    List<Frame> insert(DSLContext dsl, List<Frame> frames) {
        if (frames.isEmpty()) {
            return List.of();
        }
        if (lastId < 0) {
            // Not the highest that is left: an id is never given again, also not after the newest frames were erased.
            lastId = dsl.fetchOptional("select seq from sqlite_sequence where name = 'frame'")
                    .map(row -> row.get(0, Long.class))
                    .orElse(0L);
        }
        List<Frame> kept = new ArrayList<>(frames.size());
        frames.forEach(frame -> kept.add(frame.withId(++lastId)));
        dsl.connection(connection -> {
            try (PreparedStatement insert = connection.prepareStatement(INSERT)) {
                for (Frame frame : kept) {
                    bind(insert, frame);
                    insert.addBatch();
                }
                insert.executeBatch();
            }
        });
        return kept;
    }

    private void bind(PreparedStatement insert, Frame frame) throws SQLException {
        insert.setLong(1, frame.id());
        insert.setLong(2, frame.receivedAt().toEpochMilli());
        insert.setObject(3, frame.sentAt() == null ? null : frame.sentAt().toEpochMilli());
        insert.setString(4, frame.kind());
        insert.setString(5, frame.deviceId());
        insert.setString(6, frame.inletId());
        insert.setString(7, frame.address());
        insert.setBytes(8, frame.bytes());
        insert.setBytes(9, frame.payload());
        insert.setLong(10, frame.port());
        insert.setLong(11, frame.counter());
        insert.setString(12, frame.outcome().name());
        insert.setString(13, frame.reason());
        insert.setString(14, frame.values());
        insert.setString(15, frame.receptions().isEmpty() ? "[]" : mapper.writeValueAsString(frame.receptions()));
        insert.setString(16, frame.cause() == null ? null : frame.cause().name());
    }

    /** Removes the oldest frames that came in before a moment, so many at most; returns how many went. */
    int erase(DSLContext dsl, Instant before, int most) {
        return dsl.deleteFrom(FRAME)
                .where(FRAME.ID.in(
                        DSL.select(FRAME.ID).from(FRAME).orderBy(FRAME.ID).limit(most)))
                .and(FRAME.RECEIVED_AT.lt(before.toEpochMilli()))
                .execute();
    }

    /**
     * How much the frames are.
     *
     * @param bytes about, from the newest
     */
    record Size(long frames, long bytes) {}

    Size size() {
        long frames = reader.get().fetchCount(FRAME);
        Double average = reader.get()
                .fetchOptional("select avg(length(bytes) + length(payload) + length(receptions) + length(read_values)"
                        + " + coalesce(length(reason), 0) + 80) from (select * from frame order by id desc limit 500)")
                .map(row -> row.get(0, Double.class))
                .orElse(null);
        return new Size(frames, average == null ? 0 : Math.round(frames * average));
    }

    /** Frames of a device that it was the sender of and that came in within a range, in order, page by page. */
    public List<Frame> page(String deviceId, Instant from, Instant until, long afterId, int most) {
        return reader.get()
                .selectFrom(FRAME)
                .where(FRAME.DEVICE_ID.eq(deviceId))
                .and(FRAME.ID.gt(afterId))
                .and(FRAME.RECEIVED_AT.between(from.toEpochMilli(), until.toEpochMilli() - 1))
                .orderBy(FRAME.ID)
                .limit(most)
                .fetch(this::frame);
    }

    /** Frames, the newest first. */
    public List<Frame> find(FrameQuery query) {
        Condition condition = DSL.noCondition();
        if (query.deviceId() != null) {
            condition = condition.and(FRAME.DEVICE_ID.eq(query.deviceId()));
        }
        if (query.inletId() != null) {
            condition = condition.and(FRAME.INLET_ID.eq(query.inletId()));
        }
        if (query.refusedOnly()) {
            condition = condition.and(FRAME.OUTCOME.eq(Frame.Outcome.REFUSED.name()));
        }
        if (query.before() != null) {
            condition = condition.and(FRAME.ID.lt(query.before()));
        }
        return reader.get()
                .selectFrom(FRAME)
                .where(condition)
                .orderBy(FRAME.ID.desc())
                .limit(query.limit())
                .fetch(this::frame);
    }

    /** Devices of which there are frames. */
    public List<String> devices() {
        return reader.get()
                .selectDistinct(FRAME.DEVICE_ID)
                .from(FRAME)
                .where(FRAME.DEVICE_ID.isNotNull())
                .fetch(FRAME.DEVICE_ID);
    }

    /**
     * The newest accepted data of each of these devices: one statement, which goes back from the end of each one's
     * frames.
     */
    public List<Frame> newestData(Collection<String> deviceIds) {
        return reader.get()
                .selectFrom(FRAME)
                .where(
                        "id in (select (select f.id from frame f where f.device_id = d.value and f.kind in ('uplink', 'message', 'messages')"
                                + " and f.outcome = 'ACCEPTED' order by f.id desc limit 1) from json_each(?) d)",
                        mapper.writeValueAsString(deviceIds))
                .fetch(this::frame);
    }

    /** Frames that no registered device sent and that came in since a moment, the newest first. */
    public List<Frame> ofStrangers(Instant since, int most) {
        return reader.get()
                .selectFrom(FRAME)
                .where(FRAME.DEVICE_ID.isNull())
                .and(FRAME.RECEIVED_AT.ge(since.toEpochMilli()))
                .orderBy(FRAME.ID.desc())
                .limit(most)
                .fetch(this::frame);
    }

    /** One frame. */
    public Optional<Frame> find(long id) {
        return reader.get().selectFrom(FRAME).where(FRAME.ID.eq(id)).fetchOptional(this::frame);
    }

    private Frame frame(FrameRecord row) {
        List<Reception> receptions = mapper.readValue(row.getReceptions(), new TypeReference<>() {});
        return new Frame(
                row.getId(),
                Instant.ofEpochMilli(row.getReceivedAt()),
                row.getSentAt() == null ? null : Instant.ofEpochMilli(row.getSentAt()),
                row.getKind(),
                row.getDeviceId(),
                row.getInletId(),
                row.getAddress(),
                row.getBytes(),
                row.getPayload(),
                row.getPort().intValue(),
                row.getCounter(),
                Frame.Outcome.valueOf(row.getOutcome()),
                row.getCause() == null ? null : Cause.valueOf(row.getCause()),
                row.getReason(),
                row.getReadValues(),
                receptions);
    }
}
