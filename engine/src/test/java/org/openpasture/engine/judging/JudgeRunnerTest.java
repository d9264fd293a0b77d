package org.openpasture.engine.judging;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.core.judging.Effect;
import org.openpasture.core.judging.Event;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;
import org.openpasture.engine.TestClock;
import org.openpasture.engine.live.Watchers;
import org.openpasture.engine.point.PointViews;
import org.openpasture.store.registry.RegistryDatabase;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.sqlite.StorageFailed;
import org.openpasture.store.telemetry.Deposit;
import org.openpasture.store.telemetry.TelemetryStore;

/** Judging over a place for alerts that fails on purpose: what was decided is carried out when it can be, and once. */
class JudgeRunnerTest {
    @TempDir
    private Path folder;

    private final TestClock clock = new TestClock();
    private final FailingSink sink = new FailingSink();
    private RegistryDatabase database;
    private RegistryStore registry;
    private TelemetryStore telemetry;
    private @Nullable JudgeRunner judge;

    /** Keeps what it is given, unless it is told to fail. */
    private static final class FailingSink implements EffectSink {
        private final List<Effect> carriedOut = new CopyOnWriteArrayList<>();
        private final Set<String> poison = ConcurrentHashMap.newKeySet();
        private volatile boolean full;
        private volatile int tries;

        @Override
        public synchronized void carryOut(List<Effect> effects) {
            if (effects.isEmpty()) {
                return;
            }
            tries++;
            if (full) {
                throw StorageFailed.of(new IllegalStateException("the disk is full"));
            }
            for (Effect effect : effects) {
                if (effect instanceof Effect.Raised(var alert) && poison.contains(alert.ruleId())) {
                    throw new IllegalStateException("nobody knows what to do with this one");
                }
            }
            // As the store does: what is there already changes nothing.
            effects.stream().filter(one -> !carriedOut.contains(one)).forEach(carriedOut::add);
        }

        @Override
        public List<String> open() {
            List<String> open = new ArrayList<>();
            for (Effect effect : carriedOut) {
                switch (effect) {
                    case Effect.Raised(var alert) -> open.add(alert.id());
                    case Effect.Closed closed -> open.remove(closed.alertId());
                    default -> {}
                }
            }
            return open;
        }

        List<String> raised() {
            return carriedOut.stream()
                    .filter(Effect.Raised.class::isInstance)
                    .map(one -> ((Effect.Raised) one).alert().ruleId())
                    .toList();
        }
    }

    @BeforeEach
    void open() {
        database = RegistryDatabase.open(folder);
        registry = new RegistryStore(database, clock);
        telemetry = TelemetryStore.open(folder, database.secrets(), clock);
        registry.change(
                "test",
                List.of(
                        new Change.Put(new Site("s", "Creamery", ZoneOffset.UTC, null)),
                        new Change.Put(new Asset("store", "Cold store", "s", "room", List.of())),
                        new Change.Put(new Point(
                                "p", 1, "Air", "store", Quantity.TEMPERATURE, "°C", null, null, null, true))));
    }

    @AfterEach
    void close() {
        if (judge != null) {
            judge.close();
        }
        telemetry.close();
        database.close();
    }

    private static Rule rule(String id, Condition condition, int holdSeconds) {
        return new Rule(
                id,
                id,
                new Target.OfPoint("p"),
                condition,
                new Hold.ForTime(holdSeconds),
                0,
                Severity.WARNING,
                true,
                List.of(),
                "");
    }

    private void rules(Rule... rules) {
        registry.change(
                "test",
                java.util.Arrays.stream(rules).<Change>map(Change.Put::new).toList());
    }

    private JudgeRunner begin() {
        JudgeRunner begun =
                new JudgeRunner(telemetry, registry, sink, Watchers.NONE, new PointViews(telemetry, clock), clock);
        judge = begun;
        return begun;
    }

    private void read(double value) {
        Instant now = clock.instant();
        long seq = telemetry
                .submit(Deposit.of(new Event.ReadingsArrived(
                        Arrival.live(now, List.of(new PointReading(1, Reading.good(now, value)))))))
                .join()
                .journalSeq();
        begin0().await(seq);
    }

    private JudgeRunner begin0() {
        return judge == null ? begin() : judge;
    }

    private void awaitTries(int more) {
        int before = sink.tries;
        await().until(() -> sink.tries >= before + more);
    }

    @Test
    void aHoldThatPassesAndASilenceThatBeginsWhileTheDiskIsFullAreAlertsWhenItIsNot() {
        rules(rule("warm", new Condition.Above(8), 60), rule("silent", new Condition.Silent(300), 0));
        begin();
        read(9);
        await().until(() -> sink.carriedOut.stream().anyMatch(Effect.Delayed.class::isInstance));
        sink.full = true;
        clock.pass(Duration.ofSeconds(61));
        awaitTries(2);
        clock.pass(Duration.ofMinutes(10));
        awaitTries(2);
        assertThat(sink.raised()).isEmpty();
        sink.full = false;
        await().untilAsserted(() -> assertThat(sink.raised()).containsExactlyInAnyOrder("warm", "silent"));
        clock.pass(Duration.ofMinutes(1));
        awaitTriesOfNothing();
        assertThat(sink.raised()).hasSize(2);
    }

    private void awaitTriesOfNothing() {
        await().during(Duration.ofMillis(1_200)).until(() -> sink.raised().size() == 2);
    }

    @Test
    void whatWasOwedWhenItWasKilledIsDecidedAgain() {
        rules(rule("warm", new Condition.Above(8), 0));
        begin();
        sink.full = true;
        read(9);
        awaitTries(2);
        clock.pass(Duration.ofMinutes(5));
        awaitTries(2);
        long checkpoint = telemetry.checkpoint().journalSeq();
        assertThat(checkpoint).as("the checkpoint waits for the alert").isZero();
        // It ends with the disk still full; the next one finds room.
        begin0().close();
        sink.full = false;
        begin();
        await().untilAsserted(() -> assertThat(sink.raised()).containsExactly("warm"));
    }

    /** The state was kept when the rule was made; then it raised an alert, and was removed in the last moment. */
    @Test
    void noAlertStaysOpenThatNobodyCouldClose() {
        rules(rule("warm", new Condition.Above(8), 0));
        begin();
        TelemetryStore.Checkpoint kept = telemetry.checkpoint();
        read(9);
        await().until(() -> !sink.open().isEmpty());
        begin0().close();
        telemetry.saveCheckpoint(kept);
        registry.change("test", List.of(new Change.Remove(Kind.RULE, "warm")));
        begin();
        assertThat(sink.open()).isEmpty();
        assertThat(sink.carriedOut.getLast()).isInstanceOf(Effect.Closed.class);
    }

    @Test
    void oneEffectThatCannotBeCarriedOutTakesNoOtherAlong() {
        rules(IntStream.range(0, 5)
                .mapToObj(i -> rule("rule-" + i, new Condition.Above(8), 0))
                .toArray(Rule[]::new));
        sink.poison.add("rule-2");
        begin();
        read(9);
        await().untilAsserted(() ->
                assertThat(sink.raised()).containsExactlyInAnyOrder("rule-0", "rule-1", "rule-3", "rule-4"));
        read(5);
        await().until(() -> sink.carriedOut.stream()
                        .filter(Effect.Returned.class::isInstance)
                        .count()
                >= 4);
    }

    @Test
    void whatIsNotWrittenIsSaidAsAStorageFailureAndNothingHasChanged() {
        database.limitPages(1);
        Throwable failed = org.assertj.core.api.Assertions.catchThrowable(() -> registry.change(
                "test",
                IntStream.range(0, 500)
                        .<Change>mapToObj(
                                i -> new Change.Put(new Asset("a" + i, "Pump ".repeat(50) + i, "s", "pump", List.of())))
                        .toList()));
        assertThat(failed).isInstanceOf(StorageFailed.class).hasMessageContaining("the disk is full");
        assertThat(database.trouble()).isPresent();
        assertThat(registry.now().find(Asset.class, "a1")).isEmpty();
        database.limitPages(1_000_000);
        registry.change("test", List.of(new Change.Put(new Asset("a1", "Pump", "s", "pump", List.of()))));
        assertThat(database.trouble()).isEmpty();
    }
}
