package org.openpasture.service.inlet;

import jakarta.servlet.http.HttpServletRequest;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.openpasture.service.problem.Problem;

/**
 * How much of what is posted may be in memory at once, over all senders: a share of the heap. Small messages are never
 * kept waiting by it; many large ones at once wait for one another, and for too long a wait there is an answer. Any
 * thread.
 */
final class BodyRoom {
    private static final int SHARE_OF_HEAP = 6;
    private static final long PATIENCE_SECONDS = 20;
    private static final int KILO = 1_024;
    private final int all;
    private final Semaphore free;

    /** @param atLeast bytes of the largest message that is taken */
    BodyRoom(long heap, int atLeast) {
        all = (int) Math.min(Integer.MAX_VALUE, Math.max(heap / SHARE_OF_HEAP, atLeast) / KILO + 1);
        free = new Semaphore(all);
    }

    /** The room of one message, until it is closed. */
    interface Place extends AutoCloseable {
        @Override
        void close();
    }

    /**
     * Waits for room.
     *
     * @param bytes that the message has at most
     * @throws Problem if there is none for a while
     */
    Place take(long bytes) {
        int kilos = (int) Math.min(all, bytes / KILO + 1);
        try {
            if (!free.tryAcquire(kilos, PATIENCE_SECONDS, TimeUnit.SECONDS)) {
                throw Problem.unavailable("Too many large messages come at once.", "Send it again later.");
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw Problem.unavailable("The service is being stopped.", "Send it again later.");
        }
        return () -> free.release(kilos);
    }

    /** What a request has at most, by what it says of itself. */
    static long most(HttpServletRequest request, boolean packed, int longest, int longestUnpacked) {
        long said = request.getContentLengthLong();
        return packed ? longestUnpacked : said >= 0 ? Math.min(said, longest) : longest;
    }
}
