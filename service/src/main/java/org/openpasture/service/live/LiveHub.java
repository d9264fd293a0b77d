package org.openpasture.service.live;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Predicate;
import org.openpasture.engine.live.LiveEvent;
import org.openpasture.engine.live.Watchers;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Passes live events to open pages as server-sent events. Nobody who reads slowly holds anything up: each page has a
 * queue of its own, and one that overflows is told to load afresh ({@code resync}).
 */
@Component
public class LiveHub implements Watchers {
    private static final int QUEUE = 2_000;
    private static final int MOST_PAGES = 500;
    private static final long HEARTBEAT_SECONDS = 15;

    private final List<Subscriber> subscribers = new CopyOnWriteArrayList<>();

    @Override
    public void publish(LiveEvent event) {
        for (Subscriber subscriber : subscribers) {
            if (subscriber.names.contains(event.name()) && subscriber.filter.test(event)) {
                subscriber.offer(event);
            }
        }
    }

    @Override
    public boolean hasSubscribers() {
        return !subscribers.isEmpty();
    }

    /**
     * Opens a stream.
     *
     * @param names the events that are wanted
     * @param filter whether its reader may know of an event; asked for each, so that rights taken away end at once
     */
    SseEmitter open(Set<String> names, Predicate<LiveEvent> filter) {
        if (subscribers.size() >= MOST_PAGES) {
            throw org.openpasture.service.problem.Problem.tooMany(
                    "Too many pages are open at once.", "Close some and try again.");
        }
        Subscriber subscriber = new Subscriber(names, filter);
        subscribers.add(subscriber);
        Thread.ofVirtual().name("live-stream").start(() -> pump(subscriber));
        return subscriber.emitter;
    }

    private void pump(Subscriber subscriber) {
        try {
            subscriber.emitter.send(SseEmitter.event().name("hello").data("{}", MediaType.APPLICATION_JSON));
            while (!subscriber.closed.get()) {
                LiveEvent event = subscriber.queue.poll(HEARTBEAT_SECONDS, TimeUnit.SECONDS);
                if (event == null) {
                    subscriber.emitter.send(SseEmitter.event().comment("still here"));
                } else {
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
        final Predicate<LiveEvent> filter;

        Subscriber(Set<String> names, Predicate<LiveEvent> filter) {
            this.names = names;
            this.filter = filter;
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
