package org.openpasture.store.sqlite;

import java.time.Duration;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Why a file cannot be written at present. It is logged when it begins, once a minute while it lasts, and when it is
 * over, however many writes fail meanwhile. Any thread may call it.
 */
public final class Trouble {
    private static final Logger LOG = LoggerFactory.getLogger(Trouble.class);
    private static final Duration SAID_EVERY = Duration.ofMinutes(1);
    private final String what;
    private @Nullable String words;
    private long saidAtNanos;
    private long failures;

    /**
     * No trouble yet.
     *
     * @param what cannot be written, as the subject of a sentence: "Readings"
     */
    public Trouble(String what) {
        this.what = what;
    }

    /** A write failed. */
    public synchronized StorageFailed failed(RuntimeException error) {
        StorageFailed failed = StorageFailed.of(error);
        failures++;
        long now = System.nanoTime();
        if (words == null || now - saidAtNanos > SAID_EVERY.toNanos()) {
            LOG.error(
                    "{} cannot be written: {}. Reading goes on, and writing will as soon as it can ({} writes failed)",
                    what,
                    failed.getMessage(),
                    failures);
            saidAtNanos = now;
        }
        words = failed.getMessage();
        return failed;
    }

    /** A write succeeded. */
    public synchronized void over() {
        if (words != null) {
            LOG.info("{} can be written again: {} is over, after {} failed writes", what, words, failures);
            words = null;
            failures = 0;
        }
    }

    /** What is wrong, in words; empty while all is well. */
    public synchronized Optional<String> now() {
        return Optional.ofNullable(words);
    }
}
