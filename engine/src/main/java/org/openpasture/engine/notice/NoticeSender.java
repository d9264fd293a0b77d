package org.openpasture.engine.notice;

import jakarta.annotation.PreDestroy;
import java.time.Clock;
import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
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
        for (Notice notice : notices.due(clock.instant())) {
            if (!loop.isClosed()) {
                attempt(notice);
            }
        }
    }

    private void attempt(Notice notice) {
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
        loop.close();
    }
}
