package org.openpasture.inlets.loop;

import java.io.IOException;
import java.time.Duration;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import org.openpasture.inlets.message.Backoff;
import org.openpasture.inlets.message.Causes;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * A thread that does one step again and again until it is closed. A step that throws does not end it: the failure is
 * logged (once a minute at most), counted and passed on in words, and the next step follows after a pause that grows
 * from half a second to half a minute, until a step succeeds. An {@link Error} is no failure of a step: it is thrown
 * on.
 */
public final class Loop implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Loop.class);
    private static final Duration LOGGED_EVERY = Duration.ofMinutes(1);
    private static final Duration ENDS_WITHIN = Duration.ofSeconds(5);
    private static final Set<Loop> RUNNING = ConcurrentHashMap.newKeySet();

    private final String name;
    private final Step step;
    private final Consumer<String> failed;
    private final Thread thread;
    private final Backoff backoff = new Backoff();
    private volatile boolean closed;
    private volatile long failures;
    private volatile int failuresInARow;
    private volatile String problem = "";
    private long loggedAtNanos = System.nanoTime() - LOGGED_EVERY.toNanos();

    /** What is done again and again; it blocks while there is nothing to do. */
    @FunctionalInterface
    public interface Step {
        /** Does it once. */
        void run() throws IOException, InterruptedException;
    }

    /**
     * How a loop is.
     *
     * @param failures since it was started
     * @param problem why the newest step failed; empty if it did not
     */
    public record State(String name, boolean alive, long failures, int failuresInARow, String problem) {}

    private Loop(String name, Step step, Consumer<String> failed, Thread.Builder on) {
        this.name = name;
        this.step = step;
        this.failed = failed;
        this.thread = on.name(name).unstarted(this::run);
    }

    /**
     * A loop on a virtual thread, not yet started.
     *
     * @param failed is told why a step failed, in words, and gets empty text when one succeeds after that
     */
    public static Loop onVirtualThread(String name, Step step, Consumer<String> failed) {
        return new Loop(name, step, failed, Thread.ofVirtual());
    }

    /** The same where nobody has to be told beside the log. */
    public static Loop onVirtualThread(String name, Step step) {
        return onVirtualThread(name, step, problem -> {});
    }

    /** The same on a thread of the operating system, for what waits in native code or works without a rest. */
    public static Loop onPlatformThread(String name, Step step, Consumer<String> failed) {
        return new Loop(name, step, failed, Thread.ofPlatform().daemon());
    }

    /** All loops that were started and not closed. */
    public static List<State> all() {
        return RUNNING.stream().map(Loop::state).toList();
    }

    /** Begins. */
    public Loop start() {
        RUNNING.add(this);
        thread.start();
        return this;
    }

    /** How it is. */
    public State state() {
        return new State(name, thread.isAlive(), failures, failuresInARow, problem);
    }

    /** Whether it was told to end; a step that goes on for long looks at it. */
    public boolean isClosed() {
        return closed;
    }

    private void run() {
        while (!closed) {
            try {
                step.run();
                succeeded();
            } catch (InterruptedException e) {
                if (closed) {
                    return;
                }
            } catch (IOException | RuntimeException e) {
                if (closed) {
                    return;
                }
                failed(e);
                if (!pause()) {
                    return;
                }
            }
        }
    }

    private void succeeded() {
        if (failuresInARow > 0) {
            failuresInARow = 0;
            problem = "";
            backoff.reset();
            tell("");
        }
    }

    @SuppressWarnings("NonAtomicOperationOnVolatileField") // Only this loop's thread writes them.
    private void failed(Exception e) {
        failures++;
        failuresInARow++;
        problem = words(e);
        long now = System.nanoTime();
        if (now - loggedAtNanos >= LOGGED_EVERY.toNanos()) {
            loggedAtNanos = now;
            LOG.error("{} failed and goes on after a pause ({} failures so far)", name, failures, e);
        }
        tell(problem);
    }

    private void tell(String words) {
        try {
            failed.accept(words);
        } catch (RuntimeException e) {
            LOG.error("{} could not say how it is", name, e);
        }
    }

    private static String words(Exception e) {
        Throwable cause = Causes.innermost(e);
        return cause.getMessage() == null ? cause.getClass().getSimpleName() : cause.getMessage();
    }

    private boolean pause() {
        try {
            Thread.sleep(backoff.next());
            return true;
        } catch (InterruptedException e) {
            return !closed;
        }
    }

    /** Interrupts a step that waits, and waits a few seconds until the loop has ended. */
    @Override
    public void close() {
        end();
        join();
    }

    /** Tells it to end, and does not wait. */
    public void end() {
        closed = true;
        thread.interrupt();
        RUNNING.remove(this);
    }

    /** Waits a few seconds until it has ended; from its own thread not at all. */
    public void join() {
        if (Thread.currentThread() == thread) {
            return;
        }
        try {
            if (thread.getState() != Thread.State.NEW && !thread.join(ENDS_WITHIN)) {
                LOG.warn("{} does not end; it is left alone", name);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
