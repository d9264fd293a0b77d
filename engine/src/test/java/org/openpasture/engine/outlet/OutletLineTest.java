package org.openpasture.engine.outlet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.core.outlet.Destination;
import org.openpasture.core.outlet.Outlet;
import org.openpasture.engine.TestClock;
import org.openpasture.engine.live.Watchers;
import org.openpasture.inlets.passing.Passer;
import org.openpasture.store.outlet.OutletItem;
import org.openpasture.store.outlet.OutletQueue;
import org.openpasture.store.registry.RegistryDatabase;

/** What a line does with an outside that is away, that refuses one message, or that refuses them all. */
class OutletLineTest {
    private static final Outlet OUTLET = new Outlet(
            "o1",
            "Office",
            "s1",
            false,
            new Destination.HttpPost(URI.create("https://office.example/take"), null),
            List.of(),
            null,
            true,
            true,
            Outlet.Form.JSON,
            null,
            null);

    @TempDir
    private Path folder;

    private final List<String> taken = new CopyOnWriteArrayList<>();
    private final Watchers live = Watchers.NONE;
    private volatile boolean away;
    private volatile String unwanted = "bad";
    private RegistryDatabase database;
    private OutletQueue queue;
    private OutletLine line;

    /** Takes what it gets, unless it is away or finds a word in it that it does not want. */
    private final class Outside implements Passer {
        @Override
        public String pass(Message message) throws IOException {
            String body = new String(message.body(), StandardCharsets.UTF_8);
            if (away) {
                throw new IOException("office.example cannot be reached");
            }
            if (body.contains(unwanted)) {
                throw new Refused("office.example answers 422");
            }
            taken.add(body);
            return "It answered 200.";
        }

        @Override
        public void close() {
            // Nothing of it is open.
        }
    }

    @BeforeEach
    void open() {
        database = RegistryDatabase.open(folder);
        queue = new OutletQueue(database);
    }

    @AfterEach
    void close() {
        line.close();
        database.close();
    }

    private void begin(Outlet outlet) {
        line = new OutletLine(outlet, Outside::new, queue, live, Clock.systemUTC());
    }

    private void alerts(String... bodies) {
        queue.keep(
                IntStream.range(0, bodies.length)
                        .mapToObj(i -> new OutletItem(0, "o1", OutletItem.ALERT, "alerts", bodies[i], Instant.now()))
                        .toList(),
                1);
    }

    private void readings(String... bodies) {
        queue.keep(
                IntStream.range(0, bodies.length)
                        .mapToObj(i ->
                                new OutletItem(0, "o1", OutletItem.READINGS, "", "[" + bodies[i] + "]", Instant.now()))
                        .toList(),
                1);
    }

    private void awaitNothingWaits() {
        await().atMost(20, TimeUnit.SECONDS).until(() -> queue.count("o1") == 0);
    }

    @Test
    void readingsThatFollowOneAnotherGoTogetherAndAlertsByThemselves() {
        readings("1", "2");
        alerts("{\"a\":1}");
        readings("3");
        begin(OUTLET);
        awaitNothingWaits();
        assertThat(taken).containsExactly("[1,2]", "{\"a\":1}", "[3]");
        assertThat(line.state()).isEqualTo("up");
        assertThat(line.reason()).isEqualTo("It is taken.");
        assertThat(line.counts().passed()).isEqualTo(3);
    }

    @Test
    void whatWaitsGoesInOrderOnceTheOutsideIsBack() {
        away = true;
        readings("1");
        begin(OUTLET);
        await().atMost(10, TimeUnit.SECONDS).until(() -> line.state().equals("down"));
        assertThat(line.reason()).isEqualTo("office.example cannot be reached. It is tried again.");
        readings("2");
        away = false;
        line.wake();
        awaitNothingWaits();
        assertThat(String.join("", taken)).isIn("[1,2]", "[1][2]");
        assertThat(line.counts().refused()).isZero();
    }

    @Test
    void ofReadingsThatGoTogetherOnlyTheRefusedOneIsLeftOut() {
        readings("1", "\"bad\"", "3");
        begin(OUTLET);
        awaitNothingWaits();
        assertThat(taken).containsExactly("[1]", "[3]");
        assertThat(line.reason())
                .isEqualTo(
                        "It is taken. Left out since the outside refuses it: 1 message, by: office.example answers 422.");
    }

    /**
     * An outside that refuses everything has another fault than the messages: they are kept for when it is put right.
     */
    @Test
    void whereAllAreRefusedMostAreKept() {
        alerts(IntStream.range(0, 14).mapToObj(i -> "{\"bad\":" + i + "}").toArray(String[]::new));
        begin(OUTLET);
        await().atMost(30, TimeUnit.SECONDS).until(() -> line.counts().refused() == 10);
        await().during(1_500, TimeUnit.MILLISECONDS)
                .atMost(10, TimeUnit.SECONDS)
                .until(() -> queue.count("o1") == 4);
        assertThat(line.state()).isEqualTo("down");
        unwanted = "nothing";
        awaitNothingWaits();
        assertThat(taken).containsExactly("{\"bad\":10}", "{\"bad\":11}", "{\"bad\":12}", "{\"bad\":13}");
    }

    @Test
    void aPausedLineSendsNothing() {
        readings("1");
        begin(OUTLET.paused(true));
        line.wake();
        assertThat(line.state()).isEqualTo("paused");
        assertThat(line.reason()).isEqualTo("It is paused; what comes waits.");
        assertThat(queue.count("o1")).isEqualTo(1);
    }

    @Test
    void saysThatWeLiveAlthoughNothingElseGoes() {
        Outlet lives = new Outlet(
                "o1",
                "Office",
                "s1",
                false,
                OUTLET.destination(),
                List.of(),
                null,
                false,
                false,
                Outlet.Form.JSON,
                null,
                1);
        TestClock clock = new TestClock();
        line = new OutletLine(lives, Outside::new, queue, live, clock);
        await().atMost(5, TimeUnit.SECONDS).until(() -> taken.size() == 1);
        assertThat(taken.getFirst()).contains("\"kind\":\"life-sign\"", "\"alive\":1");
        away = true;
        clock.pass(Duration.ofMinutes(5));
        line.wake();
        await().atMost(5, TimeUnit.SECONDS).until(() -> line.state().equals("down"));
        away = false;
        await().atMost(15, TimeUnit.SECONDS).until(() -> taken.size() == 2);
        assertThat(line.state()).isEqualTo("up");
        unwanted = "alive";
        clock.pass(Duration.ofMinutes(1));
        line.wake();
        await().atMost(5, TimeUnit.SECONDS).until(() -> line.counts().refused() == 1);
        assertThat(line.state()).as("what else there is goes on").isEqualTo("up");
    }
}
