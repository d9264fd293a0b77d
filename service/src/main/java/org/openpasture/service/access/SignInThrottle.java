package org.openpasture.service.access;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.openpasture.core.text.PersonName;
import org.openpasture.service.problem.Problem;
import org.springframework.stereotype.Component;

/**
 * Slows down who guesses. Each attempt takes a token from a bucket before it is looked at, so that many at once are no
 * way around it, and tokens come back with time, so that somebody else's slow guessing keeps nobody out. There is a
 * bucket for each name as seen from each source, one for each source, and one for each name, which a source that the
 * person has signed in from before need not mind. Any thread.
 */
@Component
public class SignInThrottle {
    private static final int MOST_BUCKETS = 20_000;
    private static final Duration REMEMBERED = Duration.ofDays(30);

    /**
     * How many attempts are free, and how soon another is.
     *
     * @param refill time until one more is
     */
    private record Rate(int burst, Duration refill) {}

    private static final Rate NAME_AND_SOURCE = new Rate(5, Duration.ofSeconds(10));
    private static final Rate SOURCE = new Rate(60, Duration.ofSeconds(2));
    private static final Rate NAME = new Rate(100, Duration.ofSeconds(10));
    /** Of the codes of a second factor three of a million are right: wherever they come from, few are looked at. */
    private static final Rate CODE = new Rate(10, Duration.ofMinutes(1));

    /** A bucket as it was left. */
    private record Bucket(double tokens, Instant at) {
        Bucket refilled(Rate rate, Instant now) {
            double more = Math.max(0, Duration.between(at, now).toMillis())
                    / (double) rate.refill().toMillis();
            return new Bucket(Math.min(rate.burst(), tokens + more), now);
        }
    }

    private final Map<String, Bucket> buckets = new ConcurrentHashMap<>();
    /** Sources that a name was signed in from, with when that was last. */
    private final Map<String, Instant> known = new ConcurrentHashMap<>();

    private final Clock clock;

    SignInThrottle(Clock clock) {
        this.clock = clock;
    }

    /**
     * An attempt begins, and counts as one that failed until {@link #succeeded} says otherwise.
     *
     * @param name what is guessed at: a person's name, or which code
     * @param source where the attempt comes from
     * @throws Problem if there were too many
     */
    public void attempt(String name, String source) {
        String key = PersonName.key(name);
        take(key + " from " + source, NAME_AND_SOURCE);
        take("from " + source, SOURCE);
        Instant before = known.get(key + " from " + source);
        if (before == null || before.plus(REMEMBERED).isBefore(clock.instant())) {
            take(key, NAME);
        }
    }

    /**
     * A code of a person is about to be looked at.
     *
     * @throws Problem if there were too many
     */
    void attemptCode(String personId) {
        take("code of " + personId, CODE);
    }

    /** The code was right. */
    void codeSucceeded(String personId) {
        buckets.remove("code of " + personId);
    }

    private void take(String bucket, Rate rate) {
        if (buckets.size() > MOST_BUCKETS) {
            forget();
        }
        Instant now = clock.instant();
        boolean[] taken = {false};
        Bucket left = buckets.compute(bucket, (id, before) -> {
            Bucket full = before == null ? new Bucket(rate.burst(), now) : before.refilled(rate, now);
            taken[0] = full.tokens() >= 1;
            return taken[0] ? new Bucket(full.tokens() - 1, now) : full;
        });
        if (!taken[0]) {
            long seconds = Math.max(
                    1, (long) Math.ceil((1 - left.tokens()) * rate.refill().toMillis() / 1e3));
            throw Problem.tooMany(
                    "Too many failed attempts.",
                    "Wait " + seconds + (seconds == 1 ? " second" : " seconds") + " and try again.");
        }
    }

    /** The attempt was right: who made it is known at this source, and owes nothing. */
    public void succeeded(String name, String source) {
        String key = PersonName.key(name);
        buckets.remove(key + " from " + source);
        give("from " + source, SOURCE);
        give(key, NAME);
        known.put(key + " from " + source, clock.instant());
    }

    private void give(String bucket, Rate rate) {
        buckets.computeIfPresent(
                bucket, (id, left) -> new Bucket(Math.min(rate.burst(), left.tokens() + 1), left.at()));
    }

    /** What was not touched for an hour is full again. */
    private void forget() {
        Instant old = clock.instant().minus(Duration.ofHours(1));
        buckets.values().removeIf(bucket -> bucket.at().isBefore(old));
        known.values().removeIf(at -> at.plus(REMEMBERED).isBefore(clock.instant()));
        if (buckets.size() > MOST_BUCKETS) {
            buckets.clear();
        }
    }
}
