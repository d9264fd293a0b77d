package org.openpasture.engine.clock;

import jakarta.annotation.PreDestroy;
import java.time.Duration;
import java.util.Optional;
import org.openpasture.core.judging.Event;
import org.openpasture.inlets.loop.Loop;
import org.openpasture.store.telemetry.Deposit;
import org.openpasture.store.telemetry.TelemetryStore;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * Compares our clock with the host's every second, says what it finds, and tells the judging core when time was set.
 */
@Component
public class ClockWatch {
    private static final Logger LOG = LoggerFactory.getLogger(ClockWatch.class);
    private static final Duration EVERY = Duration.ofSeconds(1);
    private final SteadyClock clock;
    private final TelemetryStore telemetry;
    private final Loop loop;

    ClockWatch(SteadyClock clock, TelemetryStore telemetry) {
        this.clock = clock;
        this.telemetry = telemetry;
        this.loop = Loop.onVirtualThread("clock-watch", this::look).start();
    }

    private void look() throws InterruptedException {
        Thread.sleep(EVERY);
        switch (clock.compare()) {
            case SteadyClock.Comparison.Jumped(SteadyClock.Jump jump) ->
                LOG.warn(
                        "the host's clock jumped {}; readings go on with the time as it was. "
                                + "If it stays so for {} minutes, its time is taken over",
                        words(jump.by()),
                        SteadyClock.GRACE.toMinutes());
            case SteadyClock.Comparison.CameBack(SteadyClock.Jump jump) ->
                LOG.warn("the host's clock, which had jumped {}, is back; nothing was disturbed", words(jump.by()));
            case SteadyClock.Comparison.TakenOver(SteadyClock.Jump jump, java.time.Instant now) -> {
                LOG.warn(
                        "the host's clock stayed {}, so its time is taken over; silences and hold times move with it",
                        words(jump.by()));
                telemetry.submit(Deposit.of(new Event.ClockMoved(now, jump.by())));
            }
            case SteadyClock.Comparison.Agree agree -> {}
            case SteadyClock.Comparison.Watching watching -> {}
        }
    }

    /** What is odd about the host's clock, in a sentence; empty while it is as it should be. */
    public Optional<String> remark() {
        return clock.watched()
                .map(jump -> "The host's clock jumped " + words(jump.by())
                        + ". Readings go on with the time as it was; if it stays so for "
                        + SteadyClock.GRACE.toMinutes() + " minutes, its time is taken over.");
    }

    private static String words(Duration by) {
        Duration far = by.abs();
        String amount = far.toHours() > 0
                ? far.toHours() + " h " + far.toMinutesPart() + " min"
                : far.toMinutes() > 0 ? far.toMinutes() + " min " + far.toSecondsPart() + " s" : far.toSeconds() + " s";
        return amount + (by.isNegative() ? " back" : " ahead");
    }

    @PreDestroy
    void close() {
        loop.close();
    }
}
