package org.openpasture.engine.script;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.concurrent.locks.LockSupport;
import org.junit.jupiter.api.Test;

class WatchdogTest {
    @Test
    void whoWorksTooLongIsInterrupted() {
        long began = System.nanoTime();
        try (Watchdog watch = new Watchdog(50)) {
            while (!Thread.currentThread().isInterrupted() && System.nanoTime() - began < 20_000_000_000L) {
                Thread.onSpinWait();
            }
            assertThat(Thread.currentThread().isInterrupted()).isTrue();
        }
        assertThat(Thread.currentThread().isInterrupted()).isFalse();
    }

    /** On a busy machine a script waits for the processor, which is not its fault. */
    @Test
    void whoOnlyWaitsIsLeftAloneForTenTimesAsLong() {
        long began = System.nanoTime();
        try (Watchdog watch = new Watchdog(100)) {
            while (!Thread.currentThread().isInterrupted()) {
                LockSupport.parkNanos(1_000_000);
            }
        }
        assertThat(System.nanoTime() - began).isGreaterThanOrEqualTo(1_000_000_000L);
    }
}
