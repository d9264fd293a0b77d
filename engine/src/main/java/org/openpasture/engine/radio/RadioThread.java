package org.openpasture.engine.radio;

import jakarta.annotation.PreDestroy;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.DelayQueue;
import java.util.concurrent.Delayed;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Supplier;
import org.openpasture.inlets.loop.Loop;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * The one thread on which the radio network works, so that nothing in it needs a lock. Runs things at once or after a
 * while.
 */
@Component
class RadioThread {
    private static final Logger LOG = LoggerFactory.getLogger(RadioThread.class);
    private static final int MOST_FRAMES = 50_000;

    /** Something to do at a time; of the same time in the order in which they came. */
    private record Task(long dueNanos, long order, boolean frame, Runnable work) implements Delayed {
        @Override
        public long getDelay(TimeUnit unit) {
            return unit.convert(dueNanos - System.nanoTime(), TimeUnit.NANOSECONDS);
        }

        @Override
        public int compareTo(Delayed other) {
            Task task = (Task) other;
            int byTime = Long.compare(dueNanos - task.dueNanos, 0);
            return byTime != 0 ? byTime : Long.compare(order, task.order);
        }
    }

    private final DelayQueue<Task> queue = new DelayQueue<>();
    private final AtomicLong orders = new AtomicLong();
    private final AtomicInteger frames = new AtomicInteger();
    private final Loop loop;

    RadioThread() {
        this.loop = Loop.onPlatformThread("radio-network", this::turn, problem -> {})
                .start();
    }

    /** Runs something as soon as the thread is free. */
    void run(Runnable work) {
        queue.add(new Task(System.nanoTime(), orders.incrementAndGet(), false, work));
    }

    /**
     * Does something on this thread; the future completes with what it gives when that completes, and fails if it
     * throws or fails.
     */
    <T> CompletableFuture<T> ask(Supplier<CompletableFuture<T>> work) {
        CompletableFuture<T> answer = new CompletableFuture<>();
        run(() -> {
            try {
                work.get().whenComplete((value, error) -> {
                    if (error == null) {
                        answer.complete(value);
                    } else {
                        answer.completeExceptionally(
                                error instanceof CompletionException e && e.getCause() != null ? e.getCause() : error);
                    }
                });
            } catch (RuntimeException e) {
                answer.completeExceptionally(e);
            }
        });
        return answer;
    }

    /** Runs something after a while. */
    void after(long nanos, Runnable work) {
        queue.add(new Task(System.nanoTime() + nanos, orders.incrementAndGet(), false, work));
    }

    /** The same for a frame, unless too many wait already; says whether it will be run. */
    boolean offerFrame(long nanos, Runnable work) {
        if (frames.get() >= MOST_FRAMES) {
            return false;
        }
        frames.incrementAndGet();
        queue.add(new Task(System.nanoTime() + nanos, orders.incrementAndGet(), true, work));
        return true;
    }

    private void turn() throws InterruptedException {
        Task task = queue.take();
        if (task.frame()) {
            frames.decrementAndGet();
        }
        try {
            task.work().run();
        } catch (RuntimeException e) {
            // Of one frame or one wish: the next has nothing to do with it, and no pause is made.
            LOG.error("something went wrong in the radio network; it goes on", e);
        }
    }

    @PreDestroy
    void close() {
        loop.close();
    }
}
