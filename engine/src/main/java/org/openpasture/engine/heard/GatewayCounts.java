package org.openpasture.engine.heard;

import jakarta.annotation.PreDestroy;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.judging.Event;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.place.Point;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Registry;
import org.openpasture.inlets.loop.Loop;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.telemetry.Deposit;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * Counts the frames of gateways at their points: a reading each half minute in which a gateway gave a sign of life,
 * also with no frame. So a gateway that is silent is missed by a rule as a device is.
 */
@Component
public class GatewayCounts {
    /** How often a gateway's point gets a reading while the gateway is there. */
    public static final Duration EVERY = Duration.ofSeconds(30);

    private static final Duration LOOK_EVERY = Duration.ofSeconds(5);
    private final RegistryStore registry;
    private final GatewayStates gateways;
    private final TelemetryStore telemetry;
    private final Clock clock;
    private final Map<Eui64, Counted> counted = new HashMap<>();
    private final Loop loop = Loop.onVirtualThread("gateway counts", this::turn);

    /** Up to when a gateway was counted, and how many frames it had brought by then. */
    private record Counted(Instant at, Instant sign, long frames) {}

    GatewayCounts(RegistryStore registry, GatewayStates gateways, TelemetryStore telemetry, Clock clock) {
        this.registry = registry;
        this.gateways = gateways;
        this.telemetry = telemetry;
        this.clock = clock;
    }

    @EventListener(ApplicationReadyEvent.class)
    void start() {
        loop.start();
    }

    @PreDestroy
    void close() {
        loop.close();
    }

    private void turn() throws InterruptedException {
        Thread.sleep(LOOK_EVERY);
        List<PointReading> readings = due(registry.now(), clock.instant());
        if (!readings.isEmpty()) {
            telemetry
                    .submit(Deposit.of(
                            new Event.ReadingsArrived(new Arrival(clock.instant(), Arrival.Origin.LIVE, readings))))
                    .join();
        }
    }

    /** The readings that are due at a moment. */
    List<PointReading> due(Registry now, Instant at) {
        List<PointReading> readings = new ArrayList<>();
        for (Gateway gateway : now.all(Gateway.class)) {
            now.find(Point.class, gateway.pointId())
                    .flatMap(point -> gateways.lastSign(gateway.eui())
                            .filter(sign -> isDue(gateway.eui(), sign.at(), at))
                            .map(sign -> {
                                Counted before = counted.put(gateway.eui(), new Counted(at, sign.at(), sign.frames()));
                                long frames = sign.frames() - (before == null ? 0 : before.frames());
                                return new PointReading(
                                        point.number(), new Reading(at, Math.max(0, frames), Quality.GOOD));
                            }))
                    .ifPresent(readings::add);
        }
        return readings;
    }

    private boolean isDue(Eui64 eui, Instant sign, Instant at) {
        Counted before = counted.get(eui);
        boolean isNew = before == null || sign.isAfter(before.sign());
        // A sign from long ago, as before a restart, is no sign of life now.
        return isNew
                && sign.isAfter(at.minus(EVERY))
                && (before == null || !at.isBefore(before.at().plus(EVERY)));
    }
}
