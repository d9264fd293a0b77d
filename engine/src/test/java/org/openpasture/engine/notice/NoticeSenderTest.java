package org.openpasture.engine.notice;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.Semaphore;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.notice.Ways;
import org.openpasture.core.people.Person;
import org.openpasture.core.registry.Change;
import org.openpasture.engine.TestClock;
import org.openpasture.engine.live.Watchers;
import org.openpasture.store.notice.Notice;
import org.openpasture.store.notice.NoticeStore;
import org.openpasture.store.registry.RegistryDatabase;
import org.openpasture.store.registry.RegistryStore;

/** Floods, and ways by which nothing gets away, by a clock that is moved on. */
class NoticeSenderTest {
    private static final String PHONE = "+447700900123";
    private static final String OWNER = "owner@pasture.example";

    @TempDir
    private Path folder;

    private final TestClock clock = new TestClock();
    private final Outside outside = new Outside();
    private RegistryDatabase database;
    private NoticeStore notices;
    private NoticeSender sender;
    private int made;

    /** Takes what it is given, unless it is told to fail for some addresses. */
    private static final class Outside implements Delivery {
        private final List<String> taken = new CopyOnWriteArrayList<>();
        private volatile String failsFor = "nobody";
        private final Semaphore goesOn = new Semaphore(0);
        private final AtomicInteger stalled = new AtomicInteger();

        @Override
        public Optional<NotDelivered> send(Notice notice) {
            return take(notice.recipient(), notice.recipient() + ": " + notice.subject());
        }

        @Override
        public Optional<NotDelivered> send(List<Notice> gathered) {
            return take(
                    gathered.getFirst().recipient(),
                    gathered.getFirst().recipient() + ": " + gathered.size() + " together");
        }

        private Optional<NotDelivered> take(String recipient, String words) {
            if (recipient.contains("stalls")) {
                stalled.incrementAndGet();
                goesOn.acquireUninterruptibly();
            }
            if (recipient.contains(failsFor)) {
                return Optional.of(new NotDelivered("the gateway does not answer", false));
            }
            taken.add(words);
            return Optional.empty();
        }
    }

    @BeforeEach
    void open() {
        database = RegistryDatabase.open(folder);
        RegistryStore registry = new RegistryStore(database, clock);
        registry.change(
                "owner",
                List.of(
                        new Change.Put(new Person("1", "owner", OWNER, true)),
                        new Change.Put(new Ways(
                                "1", "", Severity.ADVISORY, PHONE, Severity.CRITICAL, null, null, null, null))));
        notices = new NoticeStore(database);
        sender = new NoticeSender(
                notices, outside, new ChannelWatch(database, registry, notices, clock), Watchers.NONE, clock);
    }

    @AfterEach
    void close() {
        sender.close();
        database.close();
    }

    private void alerts(int count, String recipient) {
        for (int i = 0; i < count; i++) {
            int number = ++made;
            database.write(dsl -> {
                notices.add(
                        dsl,
                        Notice.waiting(
                                "n" + number, "alert-" + number, recipient, "alert " + number, "", clock.instant()));
                return true;
            });
        }
    }

    private void turn() throws InterruptedException {
        sender.wake();
        sender.turn();
    }

    @Test
    void aFloodToOneAddressIsGatheredAndHoldsUpNoOther() throws Exception {
        alerts(500, "flooded@pasture.example");
        alerts(3, "calm@pasture.example");
        turn();
        assertThat(outside.taken).filteredOn(one -> one.startsWith("calm")).hasSize(3);
        assertThat(outside.taken).filteredOn(one -> one.startsWith("flooded")).hasSize(10);
        turn();
        assertThat(outside.taken).as("within the minute nothing more").hasSize(13);
        clock.pass(Duration.ofSeconds(61));
        turn();
        assertThat(outside.taken).hasSize(14).last().isEqualTo("flooded@pasture.example: 200 together");
        clock.pass(Duration.ofSeconds(61));
        turn();
        clock.pass(Duration.ofSeconds(61));
        turn();
        assertThat(outside.taken).last().isEqualTo("flooded@pasture.example: 90 together");
        assertThat(notices.counts()).containsEntry(Notice.State.DELIVERED, 503);
        clock.pass(Duration.ofMinutes(11));
        alerts(1, "flooded@pasture.example");
        turn();
        assertThat(outside.taken).last().isEqualTo("flooded@pasture.example: alert 504");
    }

    /** The end of quiet hours, or the day's notice: one message for what waited, in the order in which it came. */
    @Test
    void whatWaitedForTheSameTimeComesInOneMessage() throws Exception {
        Instant morning = clock.instant().plus(Duration.ofHours(9));
        for (int i = 1; i <= 4; i++) {
            held("held" + i, "anna@pasture.example", i == 4 ? morning.plusSeconds(60) : morning);
        }
        held("alone", "ben@pasture.example", morning);
        turn();
        assertThat(outside.taken).isEmpty();
        clock.pass(Duration.ofHours(9).plusSeconds(60));
        alerts(1, "anna@pasture.example");
        turn();
        assertThat(outside.taken)
                .containsExactlyInAnyOrder(
                        "anna@pasture.example: 3 together",
                        "anna@pasture.example: held4",
                        "anna@pasture.example: alert 1",
                        "ben@pasture.example: alone");
        turn();
        assertThat(outside.taken).as("each once").hasSize(4);
    }

    /** Anybody may enter the address of a browser; twenty that never answer hold up nobody's mail. */
    @Test
    void browsersWhoseServiceStallsHoldUpNoMail() throws Exception {
        for (int i = 0; i < 20; i++) {
            alerts(1, "browser:stalls" + i);
        }
        turn();
        alerts(1, "anna@pasture.example");
        turn();
        assertThat(outside.taken).containsExactly("anna@pasture.example: alert 21");
        assertThat(outside.stalled).hasValueLessThanOrEqualTo(16);
        outside.goesOn.release(20);
        await().until(() -> outside.taken.size() == 21);
        turn();
        assertThat(outside.taken).as("each once").hasSize(21);
    }

    private void held(String subject, String recipient, Instant until) {
        database.write(dsl -> {
            notices.add(
                    dsl,
                    Notice.waiting(subject, "alert-" + subject, recipient, subject, "", clock.instant())
                            .at(until));
            return true;
        });
    }

    @Test
    void whenTextMessagesFailForAWhileTheOwnerGetsOneMailAndTheOtherWayRound() throws Exception {
        outside.failsFor = "+";
        alerts(1, "+447700900999");
        for (int i = 0; i < 8; i++) {
            turn();
            clock.pass(Duration.ofMinutes(2));
        }
        assertThat(outside.taken).containsExactly(OWNER + ": Text messages cannot be sent");
        outside.failsFor = "nobody";
        clock.pass(Duration.ofHours(1));
        turn();
        assertThat(outside.taken).last().isEqualTo("+447700900999: alert 1");

        outside.failsFor = "@";
        alerts(2, "ben@pasture.example");
        for (int i = 0; i < 8; i++) {
            turn();
            clock.pass(Duration.ofMinutes(2));
        }
        assertThat(outside.taken)
                .filteredOn(one -> one.startsWith(PHONE))
                .containsExactly(PHONE + ": E-mails cannot be sent");
    }
}
