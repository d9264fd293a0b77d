package org.openpasture.inlets.poll;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.openpasture.core.layout.FieldType;
import org.openpasture.core.layout.RegisterField;
import org.openpasture.core.layout.RegisterLayout;
import org.openpasture.inlets.message.Condition;

/** Whose turn it is on a shared wire. */
class RotaTest {
    private static final RegisterLayout LAYOUT =
            new RegisterLayout(List.of(RegisterField.of("x", 0, FieldType.U16)), null);
    private final Map<String, List<PollSink.Round>> rounds = new ConcurrentHashMap<>();
    private final Map<String, List<Instant>> begun = new ConcurrentHashMap<>();
    private final List<String> conditions = new CopyOnWriteArrayList<>();
    private final Set<String> mute = ConcurrentHashMap.newKeySet();
    private final Set<String> throwing = ConcurrentHashMap.newKeySet();
    private volatile int users;
    private volatile boolean shared;
    private final PollSink sink = new Sink();
    private final Attendance attendance = new Attendance(sink);
    private final Rota rota = new Rota("test", new Wire(), sink, Clock.systemUTC());

    /** Answers at once, but for who is mute. */
    private final class Wire implements Rota.Wire {
        @Override
        public PollSink.Answer ask(Target target) {
            users++;
            shared |= users > 1;
            begun.computeIfAbsent(target.key(), key -> new CopyOnWriteArrayList<>())
                    .add(Instant.now());
            if (throwing.contains(target.deviceId())) {
                users--;
                throw new IllegalStateException("nobody expected this of " + target.deviceId());
            }
            boolean answers = !mute.contains(target.deviceId());
            users--;
            return new PollSink.Answer(new byte[answers ? 1 : 0], answers, answers ? "" : "no answer");
        }

        @Override
        public void asked(Target target, PollSink.Answer answer) {
            attendance.note(target.deviceId(), answer.something());
        }

        @Override
        public void close() {
            conditions.add("closed");
        }
    }

    private final class Sink implements PollSink {
        @Override
        public void round(Target target, Round round) {
            rounds.computeIfAbsent(target.key(), key -> new CopyOnWriteArrayList<>())
                    .add(round);
        }

        @Override
        public CompletableFuture<?> told(String deviceId, byte[] image) {
            return CompletableFuture.completedFuture(null);
        }

        @Override
        public void logged(String deviceId, List<Logged> entries) {}

        @Override
        public void found(String address, byte[] description) {}

        @Override
        public boolean isKnown(String address) {
            return true;
        }

        @Override
        public void lost(String sender, String reason) {}

        @Override
        public Optional<Instant> lastHeard(String deviceId) {
            return Optional.empty();
        }

        @Override
        public void condition(Condition condition, String words) {
            conditions.add(words);
        }
    }

    @AfterEach
    void close() {
        rota.close();
        assertThat(conditions).as("the wire is closed with it").endsWith("closed");
    }

    private static Target target(String device, int everySeconds) {
        return new Target(device, device, LAYOUT, null, everySeconds);
    }

    private int count(String key) {
        return rounds.getOrDefault(key, List.of()).size();
    }

    @Test
    void eachIsAskedAtItsPeriodOneAfterTheOther() {
        rota.ask(List.of(target("a", 1), target("b", 1), target("seldom", 3_600)));
        await().atMost(10, TimeUnit.SECONDS).until(() -> count("a") >= 4 && count("b") >= 4);
        assertThat(count("seldom")).as("once at once, and then in an hour").isEqualTo(1);
        assertThat(shared).as("two at the wire").isFalse();
        assertThat(begun.get("a").subList(1, 4))
                .as("by the clock")
                .allSatisfy(time -> assertThat(time.toEpochMilli() % 1_000).isLessThan(500));
        assertThat(rounds.get("a"))
                .allSatisfy(round -> assertThat(round.answer().something()).isTrue());
    }

    @Test
    void whoDoesNotAnswerIsAskedLessAndLess() {
        mute.add("dead");
        attendance.of(List.of("a", "dead"));
        rota.ask(List.of(target("a", 1), target("dead", 1)));
        await().atMost(15, TimeUnit.SECONDS).until(() -> count("a") >= 8);
        assertThat(count("dead"))
                .as("of eight rounds it has had the 1st, 2nd, 4th and 7th")
                .isBetween(3, 4);
        assertThat(conditions).contains("1 of 2 devices do not answer.");
    }

    @Test
    void anotherPeriodHoldsAtOnceAndWhoIsGoneIsNotAsked() {
        rota.ask(List.of(target("a", 3_600), target("b", 3_600)));
        await().atMost(10, TimeUnit.SECONDS).until(() -> count("a") == 1 && count("b") == 1);
        rota.ask(List.of(target("a", 1)));
        await().atMost(10, TimeUnit.SECONDS).until(() -> count("a") >= 4);
        assertThat(count("b")).isEqualTo(1);
    }

    @Test
    void groupsOfADeviceHaveTurnsOfTheirOwn() {
        rota.ask(List.of(target("a", 1), new Target("a", "a", LAYOUT, 3_600, 3_600)));
        await().atMost(10, TimeUnit.SECONDS).until(() -> count("a") >= 3 && count("a/3600") == 1);
    }

    @Test
    void outOfTurnItIsAskedAtOnce() {
        rota.ask(List.of(target("a", 3_600)));
        await().atMost(10, TimeUnit.SECONDS).until(() -> count("a") == 1);
        assertThat(rota.askNow(target("a", 3_600)).answer().something()).isTrue();
        assertThat(begun.get("a")).hasSize(2);
        assertThat(count("a")).as("nothing is kept of it").isEqualTo(1);
    }

    @Test
    void askingThatThrowsCostsNobodyElseAnyTurn() {
        throwing.add("odd");
        rota.ask(List.of(target("odd", 1), target("a", 1)));
        await().atMost(15, TimeUnit.SECONDS)
                .until(() -> count("a") >= 3 && begun.get("odd").size() >= 2);
        throwing.clear();
        await().atMost(15, TimeUnit.SECONDS).until(() -> count("odd") >= 1);
    }
}
