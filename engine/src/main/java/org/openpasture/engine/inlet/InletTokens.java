package org.openpasture.engine.inlet;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.openpasture.engine.secret.Tokens;
import org.openpasture.store.setting.SettingStore;
import org.springframework.stereotype.Component;

/**
 * Tokens by which senders post to an inlet: shown once, when they are made; kept as a hash. When another is made the
 * one before still works for a week, so that all senders can be changed without a gap.
 */
@Component
public class InletTokens {
    private static final String NOW = "inbox-token";
    private static final String BEFORE = "inbox-token-before";
    private static final Duration STILL_WORKS = Duration.ofDays(7);
    private final SettingStore settings;
    private final Clock clock;
    private final Map<String, Known> known = new ConcurrentHashMap<>();

    /**
     * Hashes of an inlet's tokens.
     *
     * @param beforeUntil until when the one before works
     */
    private record Known(
            @Nullable String now,
            @Nullable String before,
            @Nullable Instant beforeUntil) {}

    InletTokens(SettingStore settings, Clock clock) {
        this.settings = settings;
        this.clock = clock;
    }

    /** Makes a token; the one before works for a week more. */
    public String make(String inletId) {
        String token = Tokens.fresh();
        Optional.ofNullable(known(inletId).now())
                .ifPresent(old -> settings.saveSecret(
                        inletId,
                        BEFORE,
                        (old + " " + clock.instant().plus(STILL_WORKS)).getBytes(StandardCharsets.UTF_8)));
        settings.saveSecret(inletId, NOW, Tokens.hash(token).getBytes(StandardCharsets.UTF_8));
        known.remove(inletId);
        return token;
    }

    /** The token before is of no use any more. */
    public void withdrawOld(String inletId) {
        settings.forgetSecret(inletId, BEFORE);
        known.remove(inletId);
    }

    /** Until when the token before works; empty if there is none. */
    public Optional<Instant> oldWorksUntil(String inletId) {
        return Optional.ofNullable(known(inletId).beforeUntil()).filter(until -> until.isAfter(clock.instant()));
    }

    boolean has(String inletId) {
        return known(inletId).now() != null;
    }

    /** The inlet, of these, that a token belongs to. */
    public Optional<String> inletOf(String token, List<String> inletIds) {
        String hash = Tokens.hash(token);
        return inletIds.stream().filter(id -> isGood(id, hash)).findFirst();
    }

    /** Whether a token, by its hash, is of an inlet now. */
    boolean isGood(String inletId, String hash) {
        Known of = known(inletId);
        return hash.equals(of.now())
                || hash.equals(of.before()) && oldWorksUntil(inletId).isPresent();
    }

    public void forget(String inletId) {
        settings.forgetSecrets(inletId);
        known.remove(inletId);
    }

    private Known known(String inletId) {
        return known.computeIfAbsent(inletId, id -> {
            String now = settings.secret(id, NOW)
                    .map(bytes -> new String(bytes, StandardCharsets.UTF_8))
                    .orElse(null);
            String[] before = settings.secret(id, BEFORE)
                    .map(bytes -> new String(bytes, StandardCharsets.UTF_8).split(" "))
                    .orElse(null);
            return new Known(now, before == null ? null : before[0], before == null ? null : Instant.parse(before[1]));
        });
    }
}
