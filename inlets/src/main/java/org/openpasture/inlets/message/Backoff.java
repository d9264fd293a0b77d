package org.openpasture.inlets.message;

import java.time.Duration;
import java.util.concurrent.ThreadLocalRandom;

/** Growing, randomised delays before something is tried again, so that many do not come back at the same moment. */
public final class Backoff {
    private static final Duration FIRST = Duration.ofMillis(500);
    private static final Duration LONGEST = Duration.ofSeconds(30);
    private Duration next = FIRST;

    /** How long to wait this time. */
    public Duration next() {
        Duration now = next;
        next = next.multipliedBy(2).compareTo(LONGEST) > 0 ? LONGEST : next.multipliedBy(2);
        return Duration.ofMillis(ThreadLocalRandom.current().nextLong(now.toMillis() / 2, now.toMillis() + 1));
    }

    /** It worked: the next failure begins with a short delay. */
    public void reset() {
        next = FIRST;
    }
}
