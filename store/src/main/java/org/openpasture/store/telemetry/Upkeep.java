package org.openpasture.store.telemetry;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.function.LongSupplier;
import java.util.function.Supplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** The thread that seals when it is time, and keeps count of what came in. */
final class Upkeep implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Upkeep.class);
    private static final Duration SEAL_EVERY = Duration.ofHours(2);
    private static final long SEAL_AT = 1_000_000;
    /** With so many it is worth while after a minute already: history that was brought in, a large site. */
    private static final long SEAL_SOON = 50_000;

    private static final Duration SOON = Duration.ofMinutes(1);
    private static final Duration COUNT_EVERY = Duration.ofMinutes(1);
    private static final Duration TRY_AGAIN_AFTER = Duration.ofSeconds(10);
    private static final Duration LOOK_EVERY = Duration.ofSeconds(1);

    private final LongSupplier waiting;
    private final Runnable seal;
    private final Runnable count;
    private final Supplier<Optional<String>> trouble;
    private final Clock clock;
    private final CountDownLatch closing = new CountDownLatch(1);
    private final Thread thread;

    /**
     * Begins.
     *
     * @param waiting how many readings are not in chunks
     * @param trouble why nothing can be written, which is said elsewhere already
     */
    Upkeep(LongSupplier waiting, Runnable seal, Runnable count, Supplier<Optional<String>> trouble, Clock clock) {
        this.waiting = waiting;
        this.seal = seal;
        this.count = count;
        this.trouble = trouble;
        this.clock = clock;
        this.thread = Thread.ofPlatform().name("telemetry-sealer").daemon().start(this::run);
    }

    private void run() {
        Instant sealedAt = clock.instant();
        Instant countedAt = sealedAt;
        try {
            while (!closing.await(LOOK_EVERY.toMillis(), TimeUnit.MILLISECONDS)) {
                try {
                    if (isDue(since(sealedAt))) {
                        seal.run();
                        sealedAt = clock.instant();
                    }
                    if (since(countedAt).compareTo(COUNT_EVERY) > 0) {
                        count.run();
                        countedAt = clock.instant();
                    }
                } catch (RuntimeException e) {
                    if (closing.getCount() > 0 && trouble.get().isEmpty()) {
                        LOG.error(
                                "readings could not be put into chunks; they stay in the journal, and it is tried again",
                                e);
                    }
                    closing.await(TRY_AGAIN_AFTER.toMillis(), TimeUnit.MILLISECONDS);
                }
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** The host's clock may jump either way; a jump only makes it seal early. */
    private Duration since(Instant then) {
        return Duration.between(then, clock.instant()).abs();
    }

    private boolean isDue(Duration since) {
        long now = waiting.getAsLong();
        return now > SEAL_AT
                || now > SEAL_SOON && since.compareTo(SOON) > 0
                || now > 0 && since.compareTo(SEAL_EVERY) > 0;
    }

    @Override
    public void close() {
        closing.countDown();
        try {
            thread.join();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
