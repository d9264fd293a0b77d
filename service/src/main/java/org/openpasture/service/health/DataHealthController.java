package org.openpasture.service.health;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.health.DataHealthView;
import org.openpasture.core.access.Access;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.engine.health.DataHealth;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.service.web.Turns;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Which readings cannot be relied upon: gaps, values that are stuck, spikes, jumps, impossible values. */
@RestController
class DataHealthController {
    private static final int MOST_DAYS = 92;
    private final DataHealth health;
    private final Reader reader;
    private final Clock clock;
    private final Turns turns = new Turns(2, "Other examinations of data");

    DataHealthController(DataHealth health, Reader reader, Clock clock) {
        this.health = health;
        this.reader = reader;
        this.clock = clock;
    }

    /**
     * The points that the reader may see, those with the most to look at first. Derived points are left out.
     *
     * @param place only of this site, area or asset and what lies below it; null for all
     * @param device only those that this device feeds; null for all
     * @param days how far back, 1 to 92; a week if left out
     * @param all whether points are listed of which nothing is wrong; yes if left out
     */
    @GetMapping("/api/v1/data-health")
    List<DataHealthView> list(
            @RequestParam(required = false) @Nullable String place,
            @RequestParam(required = false) @Nullable String device,
            @RequestParam(defaultValue = "7") int days,
            @RequestParam(defaultValue = "true") boolean all) {
        if (days < 1 || days > MOST_DAYS) {
            throw Problem.invalid("days are 1 to " + MOST_DAYS + ", not " + days);
        }
        Access access = reader.access();
        Instant now = clock.instant();
        List<Point> points = access.registry().all(Point.class).stream()
                .filter(access::maySee)
                .filter(point -> place == null || access.registry().isWithin(point.placeId(), place))
                .filter(point -> device == null || isFedBy(access, point, device, now))
                .toList();
        try {
            return turns.take(() -> health
                    .of(
                            access.registry(),
                            points,
                            one -> access.may(Right.LOOK, one),
                            now.minus(Duration.ofDays(days)),
                            now)
                    .stream()
                    .filter(view -> all || !view.findings().isEmpty())
                    .toList());
        } catch (DataHealth.TooMany e) {
            throw Problem.invalid(e.getMessage() + " Choose fewer days or a place.");
        }
    }

    private static boolean isFedBy(Access access, Point point, String device, Instant now) {
        return access.registry().assignmentsTo(point.id()).stream()
                .filter(one -> one.holdsAt(now))
                .map(Assignment::deviceId)
                .anyMatch(device::equals);
    }
}
