package org.openpasture.service.reading;

import org.openpasture.service.access.Reader;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** How much this instance keeps. */
@RestController
class StateController {
    private final TelemetryStore telemetry;
    private final Reader reader;

    StateController(TelemetryStore telemetry, Reader reader) {
        this.telemetry = telemetry;
        this.reader = reader;
    }

    /**
     * What is kept.
     *
     * @param readings of all points, committed
     */
    record State(long readings) {}

    @GetMapping("/api/v1/state")
    State state() {
        reader.requireOwner("see how much is kept");
        return new State(telemetry.series().readingCount());
    }
}
