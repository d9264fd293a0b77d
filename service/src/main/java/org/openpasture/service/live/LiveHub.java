package org.openpasture.service.live;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.time.Duration;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.BooleanSupplier;
import java.util.function.Predicate;
import org.openpasture.engine.live.LiveEvent;
import org.openpasture.engine.live.Watchers;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.problem.Problem;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.event.EventListener;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Passes live events to open pages as server-sent events. Nobody who reads slowly holds anything up: each page has a
 * queue of its own, and one that overflows is told to load afresh ({@code resync}).
 */
@Component
public class LiveHub implements Watchers {
    private static final Logger LOG = LoggerFactory.getLogger(LiveHub.class);
    private static final int QUEUE = 2_000;
    private static final int MOST_PAGES = 500;
    private static final int MOST_OF_ONE = 30;
    /** How soon the end of a session is seen that nobody tells of. */
    private static final Duration LOOKED_AT_EVERY = Duration.ofSeconds(5);

    private static final Duration HEARTBEAT = Duration.ofSeconds(15);

    private final List<Subscriber> subscribers = new CopyOnWriteArrayList<>();

    @Override
    public void publish(LiveEvent event) {
        for (Subscriber subscriber : subscribers) {
            if (subscriber.names.contains(event.name())
                    && subscriber.reader.mayKnow().test(event)) {
                subscriber.offer(event);
            }
        }
    }

    /**
     * Who reads a stream.
     *
     * @param session the hash of the token by which they are signed in; when it ends, so does the stream
     * @param open whether the session still holds, for those whose end nobody tells of
     * @param mayKnow whether they may know of an event; asked for each, so that rights taken away end at once
     */
    record Reader(String personId, String session, BooleanSupplier open, Predicate<LiveEvent> mayKnow) {}

    @EventListener
    void ended(Accounts.SessionEnded session) {
        subscribers.stream()
                .filter(one -> one.reader.session().equals(session.tokenHash()))
                .forEach(one -> {
                    one.closed.set(true);
                    one.end();
                });
    }

    @Override
    public boolean hasSubscribers() {
        return !subscribers.isEmpty();
    }

    /**
     * Opens a stream.
     *
     * @param names the events that are wanted
     */
    SseEmitter open(Set<String> names, Reader reader) {
        Subscriber subscriber = new Subscriber(names, reader);
        synchronized (this) {
            long theirs = subscribers.stream()
                    .filter(one -> one.reader.personId().equals(reader.personId()))
                    .count();
            if (subscribers.size() >= MOST_PAGES || theirs >= MOST_OF_ONE) {
                throw Problem.tooMany("Too many pages are open at once.", "Close some and try again.");
            }
            subscribers.add(subscriber);
        }
        Thread.ofVirtual().name("live-stream").start(() -> pump(subscriber));
        return subscriber.emitter;
    }

    private void pump(Subscriber subscriber) {
        try {
            subscriber.emitter.send(SseEmitter.event().name("hello").data("{}", MediaType.APPLICATION_JSON));
            long lookedAt = System.nanoTime();
            long saidAt = lookedAt;
            while (!subscriber.closed.get()) {
                LiveEvent event = subscriber.queue.poll(LOOKED_AT_EVERY.toMillis(), TimeUnit.MILLISECONDS);
                long now = System.nanoTime();
                if (now - lookedAt >= LOOKED_AT_EVERY.toNanos()) {
                    lookedAt = now;
                    if (!subscriber.reader.open().getAsBoolean()) {
                        return;
                    }
                }
                if (event == null) {
                    if (now - saidAt >= HEARTBEAT.toNanos()) {
                        saidAt = now;
                        subscriber.emitter.send(SseEmitter.event().comment("still here"));
                    }
                } else {
                    saidAt = now;
                    subscriber.emitter.send(
                            SseEmitter.event().name(event.name()).data(event.data(), MediaType.APPLICATION_JSON));
                }
                if (subscriber.overflowed.compareAndSet(true, false)) {
                    subscriber.emitter.send(SseEmitter.event().name("resync").data("{}", MediaType.APPLICATION_JSON));
                }
            }
        } catch (IOException | IllegalStateException e) {
            subscriber.closed.set(true);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } catch (RuntimeException e) {
            // The page comes again by itself. While the service stops, whether a session holds cannot be asked.
            if (!subscriber.closed.get()) {
                LOG.warn("A live stream has ended, since it could not be seen to: {}", String.valueOf(e.getMessage()));
            }
        } finally {
            subscribers.remove(subscriber);
            subscriber.end();
        }
    }

    @PreDestroy
    void close() {
        subscribers.forEach(subscriber -> {
            subscriber.closed.set(true);
            subscriber.end();
        });
    }

    private static final class Subscriber {
        final SseEmitter emitter = new SseEmitter(0L);
        final BlockingQueue<LiveEvent> queue = new ArrayBlockingQueue<>(QUEUE);
        final AtomicBoolean overflowed = new AtomicBoolean();
        final AtomicBoolean closed = new AtomicBoolean();
        final Set<String> names;
        final Reader reader;

        Subscriber(Set<String> names, Reader reader) {
            this.names = names;
            this.reader = reader;
            emitter.onCompletion(() -> closed.set(true));
            emitter.onError(error -> closed.set(true));
            emitter.onTimeout(() -> closed.set(true));
        }

        /** The reader may be gone already, with the connection that the emitter would end. */
        void end() {
            try {
                emitter.complete();
            } catch (IllegalStateException gone) {
                closed.set(true);
            }
        }

        void offer(LiveEvent event) {
            if (!queue.offer(event)) {
                overflowed.set(true);
            }
        }
    }
}
