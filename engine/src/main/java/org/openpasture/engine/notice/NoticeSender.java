package org.openpasture.engine.notice;

import jakarta.annotation.PreDestroy;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import org.openpasture.core.notice.Pace;
import org.openpasture.core.notice.Recipient;
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
    private static final Duration PATIENCE = Duration.ofSeconds(2);

    private final NoticeStore notices;
    private final Delivery delivery;
    private final ChannelWatch watch;
    private final Watchers live;
    private final Clock clock;
    private final Semaphore work = new Semaphore(0);
    /**
     * So many messages are handed over at the same time, by each way: a service of browsers that stalls, whose address
     * anybody may enter, holds up no mail.
     */
    private final Semaphore mails = new Semaphore(4);

    private final Semaphore texts = new Semaphore(4);
    private final Semaphore browsers = new Semaphore(16);

    /** Addresses whose line is at work. */
    private final Set<String> busy = ConcurrentHashMap.newKeySet();

    /** Of addresses to which something was sent lately. */
    private final Map<String, Pace> paces = new ConcurrentHashMap<>();

    private final Loop loop = Loop.onVirtualThread("notices", this::turn);

    NoticeSender(NoticeStore notices, Delivery delivery, ChannelWatch watch, Watchers live, Clock clock) {
        this.notices = notices;
        this.delivery = delivery;
        this.watch = watch;
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

    /** Tries what is due, once something new is there or a while has passed. */
    void turn() throws InterruptedException {
        if (work.tryAcquire(LOOK_EVERY_SECONDS, TimeUnit.SECONDS)) {
            work.drainPermits();
        }
        Instant now = clock.instant();
        paces.values().removeIf(pace -> pace.isIdle(now));
        // Of several people each has a line of their own: a server that is slow for one holds up none of the others.
        Map<String, List<Notice>> byRecipient = notices.due(now).stream()
                .collect(Collectors.groupingBy(Notice::recipient, LinkedHashMap::new, Collectors.toList()));
        List<Thread> all = byRecipient.entrySet().stream()
                .filter(line -> busy.add(line.getKey()))
                .map(line -> Thread.ofVirtual().name("notice").start(() -> {
                    try {
                        attempt(line.getValue());
                    } finally {
                        busy.remove(line.getKey());
                    }
                }))
                .toList();
        // Those that take longer go on beside the next turn.
        long until = System.nanoTime() + PATIENCE.toNanos();
        for (Thread line : all) {
            line.join(Duration.ofNanos(until - System.nanoTime()));
        }
    }

    /** Tries what waits for one address: one by one, and in a flood together. */
    private void attempt(List<Notice> line) {
        Pace pace = paces.computeIfAbsent(line.getFirst().recipient(), address -> new Pace());
        Set<String> gone = new HashSet<>();
        for (int i = 0; i < line.size() && !loop.isClosed(); i++) {
            Notice notice = line.get(i);
            if (gone.contains(notice.id())) {
                continue;
            }
            Instant now = clock.instant();
            if (notice.alertId() == null) {
                inTurn(notice, () -> done(List.of(notice), delivery.send(notice)));
            } else if (!pace.next(now).isAfter(now)) {
                List<Notice> together = together(pace, line, i, now);
                inTurn(
                        notice,
                        () -> done(together, together.size() == 1 ? delivery.send(notice) : delivery.send(together)));
                pace.sent(now);
                together.forEach(one -> gone.add(one.id()));
            }
        }
    }

    /** What goes in one message: in a flood all, else what was kept until the same time. */
    private static List<Notice> together(Pace pace, List<Notice> line, int from, Instant now) {
        if (pace.isFlood(now)) {
            return ofAlerts(line, from);
        }
        Notice first = line.get(from);
        return first.isHeld()
                ? ofAlerts(line, from).stream()
                        .filter(one -> one.isHeld() && one.nextAt().equals(first.nextAt()))
                        .toList()
                : List.of(first);
    }

    private static List<Notice> ofAlerts(List<Notice> line, int from) {
        return line.subList(from, line.size()).stream()
                .filter(notice -> notice.alertId() != null)
                .toList();
    }

    private void inTurn(Notice notice, Runnable attempt) {
        Semaphore lines =
                switch (Recipient.kept(notice.recipient())) {
                    case Recipient.Text text -> texts;
                    case Recipient.OfBrowser browser -> browsers;
                    case Recipient.Mail mail -> mails;
                    case Recipient.OfPerson person -> mails;
                };
        lines.acquireUninterruptibly();
        try {
            attempt.run();
        } catch (RuntimeException e) {
            // It stays in the outbox, and is tried again.
            LOG.error("a notice could not be tried", e);
        } finally {
            lines.release();
        }
    }

    private void done(List<Notice> tried, Optional<NotDelivered> problem) {
        Instant now = clock.instant();
        for (Notice notice : tried) {
            if (problem.isEmpty()) {
                notices.delivered(notice.id(), now);
            } else {
                Duration delay = Duration.ofSeconds(Math.min(3600, 15L << Math.min(notice.attempts(), 8)));
                boolean giveUp = problem.get().isFinal()
                        || Duration.between(notice.createdAt(), now).compareTo(GIVE_UP_AFTER) > 0;
                notices.failed(notice.id(), problem.get().reason(), now.plus(delay), giveUp);
            }
        }
        String recipient = tried.getFirst().recipient();
        if (problem.isEmpty()) {
            watch.worked(recipient);
        } else {
            String reason = problem.get().reason();
            LOG.warn("notice to {} not delivered: {}", recipient, reason);
            if (!problem.get().isFinal() && watch.failed(recipient, reason)) {
                wake();
            }
        }
        live.publish(new LiveEvent("changed", null, null, Map.of("what", "notices")));
    }

    @PreDestroy
    void close() {
        loop.close();
    }
}
