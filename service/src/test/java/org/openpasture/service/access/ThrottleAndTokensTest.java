package org.openpasture.service.access;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.time.ZoneOffset;
import java.util.HashSet;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.openpasture.engine.secret.Tokens;

class ThrottleAndTokensTest {
    private Instant now = Instant.parse("2026-03-01T08:00:00Z");
    private final InstantSource clock = () -> now;
    private final SignInThrottle throttle = new SignInThrottle(clock.withZone(ZoneOffset.UTC));

    @Test
    void fiveFailuresCostHalfAMinuteForThatNameOnly() {
        for (int i = 0; i < 5; i++) {
            throttle.check("ann");
            throttle.failed("ann");
        }
        assertThatThrownBy(() -> throttle.check("ann")).hasMessage("Too many failed attempts.");
        assertThatCode(() -> throttle.check("bob")).doesNotThrowAnyException();
        now = now.plus(Duration.ofSeconds(31));
        assertThatCode(() -> throttle.check("ann")).doesNotThrowAnyException();
    }

    @Test
    void aSuccessForgetsTheFailures() {
        for (int i = 0; i < 4; i++) {
            throttle.failed("ann");
        }
        throttle.succeeded("ann");
        throttle.failed("ann");
        assertThatCode(() -> throttle.check("ann")).doesNotThrowAnyException();
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
