package org.openpasture.inlets.loop;

import java.io.IOException;
import java.time.Duration;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;

/** Waits for what a peer gives, and not longer than was said, also where the peer trickles. Any thread. */
public final class Deadline {
    private Deadline() {}

    /**
     * Does something on a virtual thread of its own and gives what comes of it. The caller closes what it reads from,
     * which ends that thread too.
     *
     * @param name of the thread
     * @param tooLate what is said when the time is over
     * @throws IOException in the words of what was done, or with {@code tooLate}
     */
    public static <T> T within(Duration time, String name, String tooLate, Callable<T> action)
            throws IOException, InterruptedException {
        FutureTask<T> task = new FutureTask<>(action);
        Thread.ofVirtual().name(name).start(task);
        try {
            return task.get(time.toMillis(), TimeUnit.MILLISECONDS);
        } catch (TimeoutException e) {
            throw new IOException(tooLate, e);
        } catch (ExecutionException e) {
            throw e.getCause() instanceof IOException io ? io : new IOException(String.valueOf(e.getCause()), e);
        }
    }
}
