package org.openpasture.service.config;

import java.util.List;
import org.openpasture.inlets.loop.Loop;
import org.springframework.boot.health.contributor.Health;
import org.springframework.boot.health.contributor.HealthIndicator;
import org.springframework.stereotype.Component;

/**
 * Whether the threads that run without a request still do: one that has ended, or fails again and again, is no health.
 */
@Component("engine")
class EngineHealth implements HealthIndicator {
    private static final int FAILS = 3;

    @Override
    public Health health() {
        List<String> ill = Loop.all().stream()
                .filter(loop -> !loop.alive() || loop.failuresInARow() >= FAILS)
                .map(Loop.State::name)
                .sorted()
                .toList();
        return ill.isEmpty()
                ? Health.up().build()
                : Health.down().withDetail("loops", ill).build();
    }
}
