package org.openpasture.core.lorawan;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.Map;

/**
 * How much of its ration of air one transmitter has used in the last hour, by sub-band. Where the region rations
 * nothing, it only counts. For one thread.
 */
public final class DutyCycle {
    private static final Duration WINDOW = Duration.ofHours(1);

    private record Sent(Instant at, Duration air) {}

    private final Region region;
    private final Map<Region.SubBand, Deque<Sent>> sent = new HashMap<>();

    public DutyCycle(Region region) {
        this.region = region;
    }

    /** Whether a transmission fits into what is left of the ration. */
    public boolean allows(long frequencyHz, Duration air, Instant now) {
        return region.subBand(frequencyHz)
                .map(band -> used(band, now).plus(air).toNanos() <= WINDOW.toNanos() * band.dutyCycle())
                .orElse(true);
    }

    /** Notes a transmission. */
    public void sent(long frequencyHz, Duration air, Instant now) {
        region.subBand(frequencyHz).ifPresent(band -> sent.computeIfAbsent(band, key -> new ArrayDeque<>())
                .addLast(new Sent(now, air)));
    }

    /** The share of its ration that is used up in the sub-band where least is left, 0 to 1. */
    public double usedShare(Instant now) {
        return sent.keySet().stream()
                .mapToDouble(band -> used(band, now).toNanos() / (WINDOW.toNanos() * band.dutyCycle()))
                .max()
                .orElse(0);
    }

    private Duration used(Region.SubBand band, Instant now) {
        Deque<Sent> list = sent.getOrDefault(band, new ArrayDeque<>());
        while (!list.isEmpty() && !list.getFirst().at().isAfter(now.minus(WINDOW))) {
            list.removeFirst();
        }
        return list.stream().map(Sent::air).reduce(Duration.ZERO, Duration::plus);
    }
}
