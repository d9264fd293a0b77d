package org.openpasture.service.access;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.openpasture.service.problem.Problem;
import org.springframework.stereotype.Component;

/** Slows down who guesses passwords: after five failures for a name, half a minute of waiting. */
@Component
class SignInThrottle {
    private static final int FREE_FAILURES = 5;
    private static final Duration WAIT = Duration.ofSeconds(30);
    private static final int MOST_NAMES = 10_000;

    private record Failures(int count, Instant last) {}

    private final Map<String, Failures> failures = new ConcurrentHashMap<>();
    private final Clock clock;

    SignInThrottle(Clock clock) {
        this.clock = clock;
    }

    void check(String name) {
        Failures known = failures.get(name);
        if (known != null
                && known.count() >= FREE_FAILURES
                && clock.instant().isBefore(known.last().plus(WAIT))) {
            throw Problem.tooMany("Too many failed attempts.", "Wait half a minute and try again.");
        }
    }

    void failed(String name) {
        if (failures.size() > MOST_NAMES) {
            failures.clear();
        }
        Instant now = clock.instant();
        failures.merge(name, new Failures(1, now), (before, one) -> new Failures(before.count() + 1, now));
    }

    void succeeded(String name) {
        failures.remove(name);
    }
}
