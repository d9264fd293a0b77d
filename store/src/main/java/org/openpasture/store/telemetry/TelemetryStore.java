package org.openpasture.store.telemetry;

import static org.openpasture.store.generated.telemetrydb.Tables.CHECKPOINT;
import static org.openpasture.store.generated.telemetrydb.Tables.FRAME;
import static org.openpasture.store.generated.telemetrydb.Tables.JOIN_COUNTER;
import static org.openpasture.store.generated.telemetrydb.Tables.JOURNAL;
import static org.openpasture.store.generated.telemetrydb.Tables.RADIO_SESSION;
import static org.openpasture.store.generated.telemetrydb.Tables.USED_NONCE;

import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import org.jooq.Condition;
import org.jooq.Cursor;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.judging.Event;
import org.openpasture.core.judging.JudgeState;
import org.openpasture.core.lorawan.AesKey;
import org.openpasture.core.lorawan.DevAddr;
import org.openpasture.core.lorawan.Session;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.series.JournalCodec;
import org.openpasture.core.series.SeriesSlice;
import org.openpasture.store.generated.telemetrydb.tables.records.FrameRecord;
import org.openpasture.store.secret.SecretBox;
import org.openpasture.store.sqlite.SqliteFile;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/**
 * {@code telemetry.db}: the journal of readings, the frame log, radio sessions and the judging core's checkpoint.
 *
 * <p>One thread writes. It commits whenever it is idle and something waits, so one lone deposit is durable after one
 * sync and many share one; a deposit's future completes when the commit that holds it is on disk. All readings are also
 * kept in memory, rebuilt from the journal at start.
 */
public final class TelemetryStore implements AutoCloseable {
  private final SqliteFile file;
  private final SecretBox secrets;
  private final Clock clock;
  private final JsonMapper mapper = JsonMapper.builder().build();
  private final SeriesHead head = new SeriesHead();
  private final GroupCommitter committer;
  private volatile Consumer<Committed> listener = committed -> { };

  private TelemetryStore(SqliteFile file, SecretBox secrets, Clock clock) {
    this.file = file;
    this.secrets = secrets;
    this.clock = clock;
    readJournal(0, (seq, events) -> events.forEach(head::take));
    this.committer = new GroupCommitter(this::commit);
  }

  /** Opens {@code telemetry.db} in a data folder and rebuilds the head from the journal. */
  public static TelemetryStore open(Path dataFolder, SecretBox secrets, Clock clock) {
    return new TelemetryStore(SqliteFile.open(dataFolder.resolve("telemetry.db"), "org/openpasture/store/telemetrydb"), secrets,
        clock);
  }

  /** Is told of each commit, on the writing thread and in order; must be quick. */
  public void onCommitted(Consumer<Committed> consumer) {
    listener = consumer;
  }

  /** Hands something over; the future completes when it is on disk, or fails with the reason. */
  public CompletableFuture<Committed> submit(Deposit deposit) {
    return committer.submit(deposit);
  }

  private Committed commit(List<Deposit> deposits) {
    List<Event> events = new ArrayList<>();
    deposits.forEach(deposit -> events.addAll(deposit.events()));
    List<Frame> frames = new ArrayList<>();
    long seq = file.writer().transactionResult(configuration -> {
      DSLContext dsl = configuration.dsl();
      for (Deposit deposit : deposits) {
        for (Frame frame : deposit.frames()) {
          frames.add(insert(dsl, frame));
        }
        deposit.radio().forEach(change -> apply(dsl, change));
      }
      if (events.isEmpty()) {
        return lastSeq(dsl);
      }
      return dsl.insertInto(JOURNAL, JOURNAL.WRITTEN_AT, JOURNAL.EVENTS).values(clock.millis(), JournalCodec.encode(events))
          .returningResult(JOURNAL.SEQ).fetchSingle().value1();
    });
    events.forEach(head::take);
    Committed committed = new Committed(seq, events, frames);
    listener.accept(committed);
    return committed;
  }

  private static long lastSeq(DSLContext dsl) {
    Long seq = dsl.select(DSL.max(JOURNAL.SEQ)).from(JOURNAL).fetchSingle().value1();
    return seq == null ? 0 : seq;
  }

  private Frame insert(DSLContext dsl, Frame frame) {
    Long id = dsl.insertInto(FRAME, FRAME.RECEIVED_AT, FRAME.KIND, FRAME.DEVICE_ID, FRAME.ADDRESS, FRAME.BYTES, FRAME.PAYLOAD,
            FRAME.PORT, FRAME.COUNTER, FRAME.OUTCOME, FRAME.REASON, FRAME.READ_VALUES, FRAME.RECEPTIONS)
        .values(frame.receivedAt().toEpochMilli(), frame.kind(), frame.deviceId(), frame.address(), frame.bytes(),
            frame.payload(), (long) frame.port(), frame.counter(), frame.outcome().name(), frame.reason(), frame.values(),
            mapper.writeValueAsString(frame.receptions()))
        .returningResult(FRAME.ID).fetchSingle().value1();
    return frame.withId(id);
  }

  private void apply(DSLContext dsl, RadioChange change) {
    switch (change) {
      case RadioChange.SessionBegan(String deviceId, Session session) -> {
        byte[] keys = new byte[32];
        System.arraycopy(session.nwkSKey().toBytes(), 0, keys, 0, 16);
        System.arraycopy(session.appSKey().toBytes(), 0, keys, 16, 16);
        dsl.deleteFrom(RADIO_SESSION).where(RADIO_SESSION.DEVICE_ID.eq(deviceId)).execute();
        dsl.insertInto(RADIO_SESSION, RADIO_SESSION.DEVICE_ID, RADIO_SESSION.DEV_ADDR, RADIO_SESSION.KEYS,
                RADIO_SESSION.LAST_UP, RADIO_SESSION.NEXT_DOWN)
            .values(deviceId, Integer.toUnsignedLong(session.devAddr().bits()), secrets.seal(keys), session.lastUp(),
                session.nextDown()).execute();
      }
      case RadioChange.CountersMoved(String deviceId, long lastUp, long nextDown) -> dsl.update(RADIO_SESSION)
          .set(RADIO_SESSION.LAST_UP, lastUp).set(RADIO_SESSION.NEXT_DOWN, nextDown)
          .where(RADIO_SESSION.DEVICE_ID.eq(deviceId)).execute();
      case RadioChange.Joined(String deviceId, int devNonce, int nextJoinNonce) -> {
        dsl.insertInto(USED_NONCE, USED_NONCE.DEVICE_ID, USED_NONCE.DEV_NONCE).values(deviceId, (long) devNonce)
            .onConflictDoNothing().execute();
        dsl.insertInto(JOIN_COUNTER, JOIN_COUNTER.DEVICE_ID, JOIN_COUNTER.JOIN_NONCE).values(deviceId, (long) nextJoinNonce)
            .onConflict(JOIN_COUNTER.DEVICE_ID).doUpdate().set(JOIN_COUNTER.JOIN_NONCE, (long) nextJoinNonce).execute();
      }
      case RadioChange.Forgotten(String deviceId) -> {
        dsl.deleteFrom(RADIO_SESSION).where(RADIO_SESSION.DEVICE_ID.eq(deviceId)).execute();
        dsl.deleteFrom(USED_NONCE).where(USED_NONCE.DEVICE_ID.eq(deviceId)).execute();
        dsl.deleteFrom(JOIN_COUNTER).where(JOIN_COUNTER.DEVICE_ID.eq(deviceId)).execute();
      }
    }
  }

  /** What was remembered of all devices. */
  public RadioMemory radioMemory() {
    Map<String, Session> sessions = new HashMap<>();
    file.reader().selectFrom(RADIO_SESSION).forEach(row -> {
      byte[] keys = secrets.open(row.getKeys());
      sessions.put(row.getDeviceId(), new Session(new DevAddr(row.getDevAddr().intValue()),
          AesKey.of(java.util.Arrays.copyOf(keys, 16)), AesKey.of(java.util.Arrays.copyOfRange(keys, 16, 32)), row.getLastUp(),
          row.getNextDown()));
    });
    Map<String, Set<Integer>> nonces = new HashMap<>();
    file.reader().selectFrom(USED_NONCE).forEach(row ->
        nonces.computeIfAbsent(row.getDeviceId(), id -> new HashSet<>()).add(row.getDevNonce().intValue()));
    Map<String, Integer> next = new HashMap<>();
    file.reader().selectFrom(JOIN_COUNTER).forEach(row -> next.put(row.getDeviceId(), row.getJoinNonce().intValue()));
    return new RadioMemory(sessions, nonces, next);
  }

  /** The newest reading of a point. */
  public Optional<Reading> last(int point) {
    return head.last(point);
  }

  /** Readings of a point with {@code from <= time < until}, in full detail. */
  public SeriesSlice range(int point, Instant from, Instant until) {
    return head.range(point, from, until);
  }

  /** How many readings are kept. */
  public long readingCount() {
    return head.size();
  }

  /** Frames, the newest first. */
  public List<Frame> frames(FrameQuery query) {
    Condition condition = DSL.noCondition();
    if (query.deviceId() != null) {
      condition = condition.and(FRAME.DEVICE_ID.eq(query.deviceId()));
    }
    if (query.refusedOnly()) {
      condition = condition.and(FRAME.OUTCOME.eq(Frame.Outcome.REFUSED.name()));
    }
    if (query.before() != null) {
      condition = condition.and(FRAME.ID.lt(query.before()));
    }
    return file.reader().selectFrom(FRAME).where(condition).orderBy(FRAME.ID.desc()).limit(query.limit()).fetch(this::frame);
  }

  /** One frame. */
  public Optional<Frame> frame(long id) {
    return file.reader().selectFrom(FRAME).where(FRAME.ID.eq(id)).fetchOptional(this::frame);
  }

  private Frame frame(FrameRecord row) {
    List<Reception> receptions = mapper.readValue(row.getReceptions(), new TypeReference<>() { });
    return new Frame(row.getId(), Instant.ofEpochMilli(row.getReceivedAt()), row.getKind(), row.getDeviceId(),
        row.getAddress(), row.getBytes(), row.getPayload(), row.getPort().intValue(), row.getCounter(),
        Frame.Outcome.valueOf(row.getOutcome()), row.getReason(), row.getReadValues(), receptions);
  }

  /** Reads the journal after a row, in order and with constant memory. */
  public void readJournal(long afterSeq, BiConsumer<Long, List<Event>> consumer) {
    try (Cursor<org.jooq.Record2<Long, byte[]>> rows = file.reader().select(JOURNAL.SEQ, JOURNAL.EVENTS).from(JOURNAL)
        .where(JOURNAL.SEQ.gt(afterSeq)).orderBy(JOURNAL.SEQ).fetchLazy()) {
      rows.forEach(row -> consumer.accept(row.value1(), JournalCodec.decode(row.value2())));
    }
  }

  /**
   * The judging core's state, and the row up to which it has judged.
   *
   * @param journalSeq 0 before the first
   */
  public record Checkpoint(long journalSeq, JudgeState state) {}

  public Checkpoint checkpoint() {
    return file.reader().selectFrom(CHECKPOINT).fetchOptional()
        .map(row -> new Checkpoint(row.getJournalSeq(), mapper.readValue(row.getState(), JudgeState.class)))
        .orElseGet(() -> new Checkpoint(0, JudgeState.empty()));
  }

  /** Keeps a checkpoint; on disk when this returns. */
  public void saveCheckpoint(Checkpoint checkpoint) {
    String state = mapper.writeValueAsString(checkpoint.state());
    committer.run(() -> file.writer().transaction(configuration -> configuration.dsl()
        .insertInto(CHECKPOINT, CHECKPOINT.ID, CHECKPOINT.JOURNAL_SEQ, CHECKPOINT.STATE).values(1L, checkpoint.journalSeq(), state)
        .onConflict(CHECKPOINT.ID).doUpdate().set(CHECKPOINT.JOURNAL_SEQ, checkpoint.journalSeq()).set(CHECKPOINT.STATE, state)
        .execute()));
  }

  /** Commits what waits, then closes the file. */
  @Override
  public void close() {
    committer.close();
    file.close();
  }
}
