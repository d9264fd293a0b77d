package org.openpasture.store.telemetry;

import static org.openpasture.store.generated.telemetrydb.Tables.CHECKPOINT;
import static org.openpasture.store.generated.telemetrydb.Tables.CORRECTION;
import static org.openpasture.store.generated.telemetrydb.Tables.CORRECTION_PART;
import static org.openpasture.store.generated.telemetrydb.Tables.REPLACED_READING;

import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.function.ToIntFunction;
import java.util.function.UnaryOperator;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.judging.Event;
import org.openpasture.core.judging.JudgeState;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.series.PointSeries;
import org.openpasture.store.secret.SecretBox;
import org.openpasture.store.series.Keep;
import org.openpasture.store.series.Keeper;
import org.openpasture.store.series.PointRecord;
import org.openpasture.store.series.Rewrite;
import org.openpasture.store.series.Sealer;
import org.openpasture.store.series.SeriesStore;
import org.openpasture.store.sqlite.SqliteFile;
import org.openpasture.store.sqlite.Trouble;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import tools.jackson.databind.json.JsonMapper;

/**
 * {@code telemetry.db}: the journal, chunks and summaries of readings, the frame log, radio sessions and the judging
 * core's checkpoint.
 *
 * <p>One thread writes. It commits whenever it is idle and something waits, so one lone deposit is durable after one
 * sync and many share one; a deposit's future completes when the commit that holds it is on disk. Another thread moves
 * readings from the journal into chunks, every two hours or when a million wait, in small pieces between commits.
 */
public final class TelemetryStore implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(TelemetryStore.class);
    private static final double USUAL_BYTES = 3;
    /** When so many readings wait to be sealed, whoever brings more has to wait. */
    private static final long MOST_WAITING = 4_000_000;

    private static final int FRAMES_AT_ONCE = 200;
    /**
     * Room inside the file is given back to the disk when there is more than this, and more than a fifth of the file.
     */
    private static final long MOST_REUSABLE = 64L << 20;

    private static final int PAGES_AT_ONCE = 500;
    private final SqliteFile file;
    private final Clock clock;
    private final JsonMapper mapper = JsonMapper.builder().build();
    private final Journal journal;
    private final FrameLog frames;
    private final CommandLog commands;
    private final RadioSessions radio;
    private final InboxAnswers inboxAnswers;
    private final Waveforms waveforms;
    private final SeriesStore series;
    private final Intake intake;
    private final Sealer sealer;
    private final GroupCommitter committer;
    private final Corrections corrections;
    private final Keeper keeper;
    private final Upkeep upkeep;
    private final List<Consumer<Committed>> listeners = new CopyOnWriteArrayList<>();
    private volatile UnaryOperator<List<Event>> deriving = UnaryOperator.identity();
    private volatile long committedUpTo;
    private volatile long judgedUpTo;
    private volatile boolean closing;
    private final Trouble trouble = new Trouble("Readings");
    /** Held by whoever changes chunks. */
    private final Object chunkLock = new Object();

    private final Object room = new Object();

    private TelemetryStore(SqliteFile file, SecretBox secrets, Clock clock) {
        this.file = file;
        this.clock = clock;
        this.journal = new Journal(file, clock);
        this.intake = new Intake(clock.instant());
        this.frames = new FrameLog(file::reader);
        this.commands = new CommandLog(file::reader);
        this.radio = new RadioSessions(secrets, commands);
        this.inboxAnswers = new InboxAnswers(file::reader);
        this.waveforms = new Waveforms(file::reader);
        this.series = new SeriesStore(file::reader);
        readJournal();
        this.committedUpTo = journal.last();
        this.judgedUpTo = checkpoint().journalSeq();
        this.committer = new GroupCommitter(this::commit);
        this.sealer = new Sealer(series, this::write, clock);
        this.keeper = new Keeper(series, file::reader, this::write);
        this.corrections = new Corrections(this, file::reader, clock);
        this.upkeep = new Upkeep(series::waiting, this::seal, this::keepCount, this::trouble, clock);
    }

    private void readJournal() {
        Set<Integer> erased = new HashSet<>();
        journal.read(
                journal.sealedUpTo(),
                (seq, events) -> events.forEach(event -> {
                    series.take(event);
                    if (event instanceof Event.ReadingsErased of) {
                        erased.add(of.point());
                    }
                }));
        erased.forEach(series::newestIs);
    }

    /** Opens {@code telemetry.db} in a data folder and reads the journal. */
    public static TelemetryStore open(Path dataFolder, SecretBox secrets, Clock clock) {
        return new TelemetryStore(
                SqliteFile.open(dataFolder.resolve("telemetry.db"), "org/openpasture/store/telemetrydb"),
                secrets,
                clock);
    }

    /**
     * Is asked before each commit what else follows from its readings, on the writing thread: what it adds is kept with
     * them, all or nothing. Must be quick.
     */
    public void derive(UnaryOperator<List<Event>> derived) {
        deriving = derived;
    }

    private List<Event> derived(List<Event> events) {
        try {
            return events.isEmpty() ? events : deriving.apply(events);
        } catch (RuntimeException e) {
            // What was measured is kept in any case.
            LOG.error("nothing could be derived from what came in", e);
            return events;
        }
    }

    /** Is told of each commit, on the writing thread and in order; must be quick. */
    public void onCommitted(Consumer<Committed> consumer) {
        listeners.add(consumer);
    }

    /** How committing went since the start. */
    public Commits commits() {
        return committer.commits();
    }

    /** How many deposits wait to be committed. */
    public int depositsWaiting() {
        return committer.waiting();
    }

    /**
     * Hands something over; the future completes when it is on disk, or fails with the reason. Waits while far more has
     * come than the disk could take.
     */
    public CompletableFuture<Committed> submit(Deposit deposit) {
        if (series.waiting() > MOST_WAITING) {
            awaitRoom();
        }
        return committer.submit(deposit);
    }

    private void awaitRoom() {
        synchronized (room) {
            try {
                while (series.waiting() > MOST_WAITING && !closing) {
                    room.wait(100);
                }
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new IllegalStateException("interrupted while the record store was busy", e);
            }
        }
    }

    private Committed commit(List<Deposit> deposits) {
        List<Event> measured = new ArrayList<>();
        boolean onlyEvents = true;
        for (Deposit deposit : deposits) {
            measured.addAll(deposit.events());
            onlyEvents &= deposit.isOnlyEvents();
        }
        List<Event> events = derived(measured);
        List<Frame> kept = new ArrayList<>();
        long before = journal.last();
        try {
            if (onlyEvents) {
                if (!events.isEmpty()) {
                    journal.append(events);
                }
            } else {
                file.writer().transaction(configuration -> {
                    DSLContext dsl = configuration.dsl();
                    kept.addAll(frames.insert(
                            dsl,
                            deposits.stream()
                                    .flatMap(deposit -> deposit.frames().stream())
                                    .toList()));
                    for (Deposit deposit : deposits) {
                        deposit.radio().forEach(change -> radio.apply(dsl, change));
                        deposit.answers().forEach(answer -> inboxAnswers.keep(dsl, answer));
                        deposit.waveforms().forEach(one -> waveforms.keep(dsl, one));
                    }
                    if (!events.isEmpty()) {
                        journal.append(events);
                    }
                });
            }
        } catch (RuntimeException e) {
            journal.backTo(before);
            throw trouble.failed(e);
        }
        trouble.over();
        return committed(events, kept);
    }

    /** Why nothing can be written now, in words; empty while all is well. */
    public Optional<String> trouble() {
        return trouble.now();
    }

    private Committed committed(List<Event> events, List<Frame> kept) {
        intake.count(events, kept);
        events.forEach(series::take);
        committedUpTo = journal.last();
        Committed committed = new Committed(committedUpTo, events, kept);
        for (Consumer<Committed> listener : listeners) {
            try {
                listener.accept(committed);
            } catch (RuntimeException e) {
                // It is on disk: whoever listens cannot undo that, nor keep the others from hearing of it.
                LOG.error("a commit could not be told of", e);
            }
        }
        return committed;
    }

    private void write(Consumer<DSLContext> work) {
        committer.run(() -> {
            try {
                file.writer().transaction(configuration -> work.accept(configuration.dsl()));
            } catch (RuntimeException e) {
                throw trouble.failed(e);
            }
        });
    }

    /**
     * Puts all readings that are in the journal into chunks now, and takes out of the journal what is judged as well.
     */
    public void seal() {
        synchronized (chunkLock) {
            long upTo = committedUpTo;
            if (sealer.sealAll(() -> closing)) {
                write(dsl -> journal.setSealedUpTo(dsl, upTo));
            }
            synchronized (room) {
                room.notifyAll();
            }
            trimJournal();
        }
    }

    private void trimJournal() {
        long upTo = Math.min(journal.sealedUpTo(), judgedUpTo);
        boolean[] more = {true};
        while (more[0]) {
            write(dsl -> more[0] = journal.removeSome(dsl, upTo));
        }
    }

    /**
     * Values of a point that others for the same moment took the place of, by time; those not sealed yet are not among
     * them.
     */
    public List<PointSeries.Replaced> replacedReadings(int point) {
        return file.reader()
                .selectFrom(REPLACED_READING)
                .where(REPLACED_READING.POINT.eq((long) point))
                .orderBy(REPLACED_READING.TIME, REPLACED_READING.VALUE)
                .fetch(row -> new PointSeries.Replaced(
                        new Reading(
                                Instant.ofEpochMilli(row.getTime()),
                                row.getValue(),
                                Quality.ofCode(row.getQuality().intValue())),
                        row.getReplacedBy()));
    }

    private void keepCount() {
        if (!intake.isEmpty()) {
            write(dsl -> intake.keep(dsl, clock.instant()));
        }
    }

    /** Erases of a point what is older than it is to be kept; returns how many readings went. */
    public long erase(int point, Keep keep) {
        synchronized (chunkLock) {
            return keeper.erase(point, keep, clock.instant());
        }
    }

    /** Erases frames that came in before a moment; returns how many went. */
    public int eraseFrames(Instant before) {
        int[] all = {0};
        int[] went = {FRAMES_AT_ONCE};
        while (went[0] == FRAMES_AT_ONCE && !closing) {
            write(dsl -> went[0] = frames.erase(dsl, before, FRAMES_AT_ONCE));
            all[0] += went[0];
        }
        return all[0];
    }

    /** Answers to posts by their Idempotency-Key. */
    public InboxAnswers inboxAnswers() {
        return inboxAnswers;
    }

    /** Removes answers to posts that came before a moment, in small steps; returns how many went. */
    public int eraseInboxAnswers(Instant before) {
        int[] all = {0};
        int[] went = {FRAMES_AT_ONCE};
        while (went[0] == FRAMES_AT_ONCE && !closing) {
            write(dsl -> went[0] = inboxAnswers.erase(dsl, before, FRAMES_AT_ONCE));
            all[0] += went[0];
        }
        return all[0];
    }

    /** Whether anything is kept of a point: a reading or a waveform. */
    public boolean isKept(int point) {
        return series.last(point).isPresent() || waveforms.has(point);
    }

    /**
     * The highest number of a point of which anything is or was kept, also of one that is registered no more; 0 for
     * none. What is kept aside by corrections counts, since it can come back.
     */
    public int highestPoint() {
        int ofSeries =
                series.records().stream().mapToInt(PointRecord::point).max().orElse(0);
        return Math.max(ofSeries, Math.max(waveforms.highestPoint(), corrections.highestPoint()));
    }

    /** Removes the waveforms of a point that began in a range, for good; returns how many there were. */
    public int eraseWaveforms(int point, Instant from, Instant until) {
        List<Instant> times = waveforms.list(point, from, until, Integer.MAX_VALUE).stream()
                .map(Waveforms.Kept::time)
                .toList();
        removeWaveforms(point, times);
        return times.size();
    }

    private void removeWaveforms(int point, List<Instant> gone) {
        for (int i = 0; i < gone.size() && !closing; i += FRAMES_AT_ONCE) {
            List<Instant> some = gone.subList(i, Math.min(gone.size(), i + FRAMES_AT_ONCE));
            write(dsl -> waveforms.remove(dsl, point, some));
        }
    }

    /** The waveforms of points. */
    public Waveforms waveforms() {
        return waveforms;
    }

    /**
     * Keeps of each point's waveforms the newest and the last of each day.
     *
     * @param newest how many
     * @param oldest what is from before this moment goes in any case
     */
    public void thinWaveforms(int newest, Instant oldest) {
        for (int point : waveforms.points()) {
            removeWaveforms(point, waveforms.superfluous(point, newest, oldest));
        }
    }

    /** Removes commands that were done with before a moment, in small steps. */
    public void eraseCommands(Instant before) {
        inSteps(dsl -> commands.erase(dsl, before, FRAMES_AT_ONCE));
    }

    /** Removes what corrections from before a moment replaced; they cannot be undone any more, and are not listed. */
    public void eraseCorrections(Instant before) {
        inSteps(dsl -> {
            List<Long> ids = dsl.select(CORRECTION.ID)
                    .from(CORRECTION)
                    .where(CORRECTION.AT.lt(before.toEpochMilli()))
                    .and(CORRECTION.ID.lt(DSL.select(DSL.max(CORRECTION.ID)).from(CORRECTION)))
                    .limit(20)
                    .fetch(CORRECTION.ID);
            dsl.deleteFrom(CORRECTION_PART)
                    .where(CORRECTION_PART.CORRECTION.in(ids))
                    .execute();
            return dsl.deleteFrom(CORRECTION).where(CORRECTION.ID.in(ids)).execute();
        });
    }

    /** Does something until there is nothing left to do; other writes come in between. */
    private void inSteps(ToIntFunction<DSLContext> step) {
        int[] went = {1};
        while (went[0] > 0 && !closing) {
            write(dsl -> went[0] = step.applyAsInt(dsl));
        }
    }

    /** Gives room that fell free inside the file back to the disk, if it is much. */
    public void shrink() {
        long page = file.pragma("page_size");
        long free = file.pragma("freelist_count");
        while (free * page > MOST_REUSABLE && free > file.pragma("page_count") / 5 && !closing) {
            committer.run(() -> file.freePages(PAGES_AT_ONCE));
            long left = file.pragma("freelist_count");
            if (left >= free) {
                return;
            }
            free = left;
        }
    }

    /** How much room the records take, and how fast that grows. */
    public Space space() {
        keepCount();
        Intake.Lately lately = intake.lately(file.reader(), clock.instant());
        long chunkBytes =
                series.records().stream().mapToLong(PointRecord::chunkBytes).sum();
        long summaryBytes =
                series.records().stream().mapToLong(PointRecord::summaryBytes).sum();
        long readings =
                series.records().stream().mapToLong(PointRecord::readings).sum();
        double aReading = readings == 0 ? USUAL_BYTES : (double) (chunkBytes + summaryBytes) / readings;
        double days = lately.hours() / 24;
        FrameLog.Size size = frames.size();
        return new Space(
                file.bytes(),
                file.pragma("freelist_count") * file.pragma("page_size"),
                chunkBytes,
                summaryBytes,
                size.frames(),
                size.bytes(),
                waveforms.bytes(),
                file.freeOnDisk(),
                lately.hours(),
                days == 0 ? 0 : lately.readings() / days,
                days == 0 ? 0 : (lately.readings() * aReading + lately.frameBytes()) / days);
    }

    /** Reads everything that is stored and says what is wrong with it. Takes a while; ingest goes on. */
    public Integrity check() {
        return IntegrityCheck.of(file.reader());
    }

    /**
     * Copies the file as it is at this moment, while writing goes on; the copy is complete when the snapshot has been
     * written.
     */
    public SqliteFile.Snapshot snapshot() {
        return file.snapshot();
    }

    /**
     * Puts other readings in place of those of a range, in chunks, summaries and memory. The journal says so in the
     * same transaction, so that a crash brings nothing back.
     *
     * @param with what else belongs to it
     */
    void rewrite(Rewrite rewrite, Consumer<DSLContext> with) {
        Instant now = clock.instant();
        List<Event> events = new ArrayList<>(List.of(new Event.ReadingsErased(
                now, rewrite.point(), Instant.ofEpochMilli(rewrite.from()), Instant.ofEpochMilli(rewrite.until()))));
        List<PointReading> readings = new ArrayList<>();
        for (int i = 0; i < rewrite.readings().size(); i++) {
            readings.add(new PointReading(rewrite.point(), rewrite.readings().reading(i)));
        }
        if (!readings.isEmpty()) {
            events.add(new Event.ReadingsArrived(new Arrival(now, Arrival.Origin.IMPORT, readings)));
        }
        synchronized (chunkLock) {
            sealer.rewrite(rewrite, dsl -> {
                with.accept(dsl);
                journal.append(events);
            });
            committer.run(() -> {
                committed(events, List.of());
                series.newestIs(rewrite.point());
            });
        }
    }

    /** What people changed in the record. */
    public Corrections corrections() {
        return corrections;
    }

    /** The readings of all points. */
    public SeriesStore series() {
        return series;
    }

    /** The frames that came in. */
    public FrameLog frames() {
        return frames;
    }

    /** What was sent to devices, or is to be. */
    public CommandLog commands() {
        return commands;
    }

    /** What was remembered of all devices. */
    public RadioMemory radioMemory() {
        return radio.read(file.reader());
    }

    /** Reads the journal after a row, in order and with constant memory. */
    public void readJournal(long afterSeq, BiConsumer<Long, List<Event>> consumer) {
        journal.read(afterSeq, consumer);
    }

    /**
     * The judging core's state, and the row up to which it has judged.
     *
     * @param journalSeq 0 before the first
     */
    public record Checkpoint(long journalSeq, JudgeState state) {}

    public Checkpoint checkpoint() {
        return file.reader()
                .selectFrom(CHECKPOINT)
                .fetchOptional()
                .map(row -> new Checkpoint(row.getJournalSeq(), mapper.readValue(row.getState(), JudgeState.class)))
                .orElseGet(() -> new Checkpoint(0, JudgeState.empty()));
    }

    /** Keeps a checkpoint; on disk when this returns. */
    public void saveCheckpoint(Checkpoint checkpoint) {
        String state = mapper.writeValueAsString(checkpoint.state());
        committer.run(() -> file.writer().transaction(configuration -> configuration
                .dsl()
                .insertInto(CHECKPOINT, CHECKPOINT.ID, CHECKPOINT.JOURNAL_SEQ, CHECKPOINT.STATE)
                .values(1L, checkpoint.journalSeq(), state)
                .onConflict(CHECKPOINT.ID)
                .doUpdate()
                .set(CHECKPOINT.JOURNAL_SEQ, checkpoint.journalSeq())
                .set(CHECKPOINT.STATE, state)
                .execute()));
        judgedUpTo = checkpoint.journalSeq();
    }

    /** Lets the file grow to so many pages at most: what a full disk looks like, for the test of it. */
    void limitPages(long pages) {
        committer.run(() -> file.limitPages(pages));
    }

    /** Commits what waits, then closes the file. */
    @Override
    public void close() {
        closing = true;
        synchronized (room) {
            room.notifyAll();
        }
        upkeep.close();
        committer.close();
        sealer.close();
        file.close();
    }
}
