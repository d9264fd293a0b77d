package org.openpasture.engine.notice;

import jakarta.annotation.PreDestroy;
import java.time.Clock;
import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.openpasture.engine.live.LiveEvent;
import org.openpasture.engine.live.Watchers;
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
    private volatile boolean closed;

    NoticeSender(NoticeStore notices, Mailer mailer, Watchers live, Clock clock) {
        this.notices = notices;
        this.mailer = mailer;
        this.live = live;
        this.clock = clock;
    }

    @EventListener(ApplicationReadyEvent.class)
    void start() {
        Thread.ofVirtual().name("notices").start(this::loop);
    }

    /** Something new is in the outbox. */
    public void wake() {
        work.release();
    }

    private void loop() {
        while (!closed) {
            try {
                boolean woken = work.tryAcquire(LOOK_EVERY_SECONDS, TimeUnit.SECONDS);
                if (woken) {
                    work.drainPermits();
                }
                notices.due(clock.instant()).forEach(this::attempt);
            } catch (InterruptedException e) {
                return;
            } catch (RuntimeException e) {
                if (!closed) {
                    LOG.error("the outbox could not be worked on; trying again", e);
                }
            }
        }
    }

    private void attempt(Notice notice) {
        if (closed) {
            return;
        }
        Optional<String> problem = mailer.send(notice.recipient(), notice.subject(), notice.body());
        if (problem.isEmpty()) {
            notices.delivered(notice.id(), clock.instant());
        } else {
            Duration delay = Duration.ofSeconds(Math.min(3600, 15L << Math.min(notice.attempts(), 8)));
            boolean giveUp =
                    Duration.between(notice.createdAt(), clock.instant()).compareTo(GIVE_UP_AFTER) > 0;
            notices.failed(notice.id(), problem.get(), clock.instant().plus(delay), giveUp);
            LOG.warn("notice to {} not delivered: {}", notice.recipient(), problem.get());
        }
        live.publish(new LiveEvent("changed", null, null, java.util.Map.of("what", "notices")));
    }

    @PreDestroy
    void close() {
        closed = true;
        wake();
    }
}
