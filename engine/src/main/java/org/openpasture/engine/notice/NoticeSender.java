package org.openpasture.engine.notice;

import jakarta.annotation.PreDestroy;
import java.time.Clock;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import org.openpasture.engine.live.LiveEvent;
import org.openpasture.engine.live.Watchers;
import org.openpasture.inlets.loop.Loop;
import org.openpasture.store.notice.Notice;
import org.openpasture.store.notice.NoticeStore;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** Empties the outbox: tries each notice, again after growing delays, and gives up after two days. */
@Component
public class NoticeSender {
    private static final Logger LOG = LoggerFactory.getLogger(NoticeSender.class);
    private static final Duration GIVE_UP_AFTER = Duration.ofDays(2);
    private static final long LOOK_EVERY_SECONDS = 5;

    private final NoticeStore notices;
    private final Mailer mailer;
    private final Watchers live;
    private final Clock clock;
    private final Semaphore work = new Semaphore(0);
    /** So many mails are handed over at the same time. */
    private final Semaphore lines = new Semaphore(4);

    private final Loop loop = Loop.onVirtualThread("notices", this::turn);

    NoticeSender(NoticeStore notices, Mailer mailer, Watchers live, Clock clock) {
        this.notices = notices;
        this.mailer = mailer;
        this.live = live;
        this.clock = clock;
    }

    @EventListener(ApplicationReadyEvent.class)
    void start() {
        loop.start();
    }

    /** Something new is in the outbox. */
    public void wake() {
        work.release();
    }

    private void turn() throws InterruptedException {
        if (work.tryAcquire(LOOK_EVERY_SECONDS, TimeUnit.SECONDS)) {
            work.drainPermits();
        }
        // Of several people each has a line of their own: a server that is slow for one holds up none of the others.
        Map<String, List<Notice>> byRecipient = notices.due(clock.instant()).stream()
                .collect(Collectors.groupingBy(Notice::recipient, LinkedHashMap::new, Collectors.toList()));
        List<Thread> all = byRecipient.values().stream()
                .map(line -> Thread.ofVirtual().name("notice").start(() -> attempt(line)))
                .toList();
        for (Thread line : all) {
            line.join();
        }
    }

    private void attempt(List<Notice> line) {
        for (Notice notice : line) {
            if (loop.isClosed()) {
                return;
            }
            lines.acquireUninterruptibly();
            try {
                attempt(notice);
            } catch (RuntimeException e) {
                // It stays in the outbox, and is tried again.
                LOG.error("a notice could not be tried", e);
            } finally {
                lines.release();
            }
        }
    }

    private void attempt(Notice notice) {
        Optional<MailFailure> problem = mailer.send(
                new Mail(notice.id(), notice.alertId(), notice.recipient(), notice.subject(), notice.body()));
        if (problem.isEmpty()) {
            notices.delivered(notice.id(), clock.instant());
        } else {
            Duration delay = Duration.ofSeconds(Math.min(3600, 15L << Math.min(notice.attempts(), 8)));
            boolean giveUp = problem.get().isFinal()
                    || Duration.between(notice.createdAt(), clock.instant()).compareTo(GIVE_UP_AFTER) > 0;
            String reason = problem.get().reason();
            notices.failed(notice.id(), reason, clock.instant().plus(delay), giveUp);
            LOG.warn("notice to {} not delivered: {}", notice.recipient(), reason);
        }
        live.publish(new LiveEvent("changed", null, null, java.util.Map.of("what", "notices")));
    }

    @PreDestroy
    void close() {
        loop.close();
    }
}
