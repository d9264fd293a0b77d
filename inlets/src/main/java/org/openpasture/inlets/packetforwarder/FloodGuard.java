package org.openpasture.inlets.packetforwarder;

import java.net.InetSocketAddress;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.LongSupplier;

/**
 * Lets so many datagrams a second through from one sender, with a short burst more, so that one that runs wild takes
 * nothing from the others. For one thread.
 */
final class FloodGuard {
    /** A gateway of eight channels hears some dozen frames a second at most. */
    static final int A_SECOND = 2_000;

    private static final int BURST = 4_000;
    private static final int MOST_SENDERS = 20_000;

    /** What is done with a datagram. */
    enum Verdict {
        ADMITTED,
        /** The first that is dropped for a while, which is worth a word. */
        DROPPED_FIRST,
        DROPPED
    }

    private static final class Bucket {
        private double left = BURST;
        private long filledAt;
        private boolean said;
    }

    private final LongSupplier nanos;
    private final Map<InetSocketAddress, Bucket> buckets = new LinkedHashMap<>(16, 0.75f, true);

    FloodGuard(LongSupplier nanos) {
        this.nanos = nanos;
    }

    Verdict admit(InetSocketAddress sender) {
        long now = nanos.getAsLong();
        Bucket bucket = buckets.computeIfAbsent(sender, key -> {
            Bucket made = new Bucket();
            made.filledAt = now;
            return made;
        });
        if (buckets.size() > MOST_SENDERS) {
            Iterator<InetSocketAddress> longestUnused = buckets.keySet().iterator();
            longestUnused.next();
            longestUnused.remove();
        }
        bucket.left = Math.min(BURST, bucket.left + (now - bucket.filledAt) / 1e9 * A_SECOND);
        bucket.filledAt = now;
        if (bucket.left >= 1) {
            bucket.left--;
            bucket.said &= bucket.left < BURST / 2;
            return Verdict.ADMITTED;
        }
        boolean first = !bucket.said;
        bucket.said = true;
        return first ? Verdict.DROPPED_FIRST : Verdict.DROPPED;
    }
}
