package org.openpasture.engine.script;

import java.lang.management.ManagementFactory;
import java.lang.management.ThreadMXBean;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;

/**
 * Interrupts a thread that works for too long. What counts is the processor time that the thread took, so that a script
 * on a busy machine is not blamed for waiting; the time on the clock ends it only after ten times as long.
 */
final class Watchdog implements AutoCloseable {
    private static final int WAITING = 10;
    private static final ThreadMXBean THREADS = ManagementFactory.getThreadMXBean();
    private static final ScheduledExecutorService CLOCK = Executors.newSingleThreadScheduledExecutor(
            work -> Thread.ofPlatform().name("script-watch").daemon().unstarted(work));

    private final Thread watched = Thread.currentThread();
    private final long nanos;
    private final long beganAt = System.nanoTime();
    private final long usedBefore;
    /** Guarded by this. */
    private boolean over;

    /**
     * Watches the calling thread until it is closed by it.
     *
     * @param millis of processor time
     */
    Watchdog(long millis) {
        nanos = TimeUnit.MILLISECONDS.toNanos(millis);
        usedBefore = used();
        look(nanos);
    }

    private void look(long in) {
        CLOCK.schedule(this::check, in, TimeUnit.NANOSECONDS);
    }

    private synchronized void check() {
        if (over) {
            return;
        }
        long left = nanos - (used() - usedBefore);
        if (left <= 0 || System.nanoTime() - beganAt >= WAITING * nanos) {
            watched.interrupt();
        } else {
            look(Math.max(left, TimeUnit.MILLISECONDS.toNanos(1)));
        }
    }

    /** Nanoseconds of processor time; -1 where the machine cannot tell, and then those of the clock. */
    private long used() {
        long nanosUsed = THREADS.isThreadCpuTimeSupported() ? THREADS.getThreadCpuTime(watched.threadId()) : -1;
        return nanosUsed < 0 ? System.nanoTime() : nanosUsed;
    }

    /** Ends watching; the thread is not interrupted any more. */
    @Override
    public synchronized void close() {
        over = true;
        Thread.interrupted();
    }
}
