package org.openpasture.service.access;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;

import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.time.ZoneOffset;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.openpasture.engine.secret.Tokens;
import org.openpasture.service.problem.Problem;

class ThrottleAndTokensTest {
    private static final String HERE = "192.0.2.7";
    private Instant now = Instant.parse("2026-03-01T08:00:00Z");
    private final InstantSource clock = () -> now;
    private final SignInThrottle throttle = new SignInThrottle(clock.withZone(ZoneOffset.UTC));

    private int lookedAt(int attempts, String name, String source) {
        int looked = 0;
        for (int i = 0; i < attempts; i++) {
            try {
                throttle.attempt(name, source);
                looked++;
            } catch (Problem refused) {
                assertThat(refused).hasMessage("Too many failed attempts.");
            }
        }
        return looked;
    }

    @Test
    void fiveFailuresCostSomeSecondsForThatNameFromThatSourceOnly() {
        assertThat(lookedAt(20, "ann", HERE)).isEqualTo(5);
        assertThatCode(() -> throttle.attempt("bob", HERE)).doesNotThrowAnyException();
        assertThatCode(() -> throttle.attempt("ann", "192.0.2.9")).doesNotThrowAnyException();
        now = now.plus(Duration.ofSeconds(10));
        assertThat(lookedAt(20, "ann", HERE)).isEqualTo(1);
    }

    /** Otherwise whoever guesses wrong on purpose would keep her out for ever. */
    @Test
    void oneWrongGuessEachHalfMinuteKeepsNobodyOut() {
        for (int i = 0; i < 50; i++) {
            throttle.attempt("ann", HERE);
            now = now.plus(Duration.ofSeconds(15));
            assertThatCode(() -> throttle.attempt("ann", HERE)).doesNotThrowAnyException();
            throttle.succeeded("ann", HERE);
            now = now.plus(Duration.ofSeconds(15));
        }
    }

    @Test
    void otherSpellingsOfANameAreTheSameName() {
        int looked = 0;
        for (String name : List.of("hanskr", "HansKr", "han\u017fkr", "hans\u212ar", "\uff48anskr", "HANSKR")) {
            looked += lookedAt(6, name, HERE);
        }
        assertThat(looked).isEqualTo(5);
    }

    @Test
    void manyAtOnceAreCountedBeforeTheyAreLookedAt() throws Exception {
        try (var threads = Executors.newVirtualThreadPerTaskExecutor()) {
            List<Future<Integer>> all = IntStream.range(0, 200)
                    .mapToObj(i -> threads.submit(() -> lookedAt(1, "ann", HERE)))
                    .toList();
            int looked = 0;
            for (Future<Integer> one : all) {
                looked += one.get();
            }
            assertThat(looked).isEqualTo(5);
        }
    }

    /** From many sources at once; where she has signed in before, she still may. */
    @Test
    void aNameIsNotGuessedFromAThousandSources() {
        throttle.attempt("ann", HERE);
        throttle.succeeded("ann", HERE);
        int looked = 0;
        for (int i = 0; i < 1_000; i++) {
            looked += lookedAt(1, "ann", "198.51.100." + i);
        }
        assertThat(looked).isEqualTo(100);
        assertThatCode(() -> throttle.attempt("ann", HERE)).doesNotThrowAnyException();
    }

    @Test
    void aSourceDoesNotTryAThousandNames() {
        int looked = 0;
        for (int i = 0; i < 1_000; i++) {
            looked += lookedAt(1, "name " + i, HERE);
        }
        assertThat(looked).isEqualTo(60);
    }

    @Test
    void aSuccessForgetsTheFailures() {
        assertThat(lookedAt(4, "ann", HERE)).isEqualTo(4);
        throttle.succeeded("ann", HERE);
        assertThat(lookedAt(20, "ann", HERE)).isEqualTo(5);
    }

    @Test
    void tokensAreLongDifferentAndFitIntoAnAddress() {
        Set<String> seen = new HashSet<>();
        for (int i = 0; i < 1_000; i++) {
            String token = Tokens.fresh();
            assertThat(token).hasSize(43).matches("[A-Za-z0-9_-]+");
            seen.add(token);
        }
        assertThat(seen).hasSize(1_000);
    }

    @Test
    void aCodeForTypingHasNoDigitsThatLookAlike() {
        assertThat(Tokens.shortCode()).matches("[2-9A-HJ-NP-Z]{4}-[2-9A-HJ-NP-Z]{4}-[2-9A-HJ-NP-Z]{2}");
    }

    /** The example of FIPS 180-4. */
    @Test
    void hashesAreSha256() {
        assertThat(Tokens.hash("abc")).isEqualTo("ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad");
    }
}
