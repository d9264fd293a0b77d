package org.openpasture.engine.importing;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.reading.ImportReport;
import org.openpasture.core.access.Access;
import org.openpasture.core.judging.Event;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.store.telemetry.Deposit;
import org.openpasture.store.telemetry.TelemetryStore;

/**
 * Takes readings of a file one by one, checks each, hands them to the store in pieces, and remembers what it refused.
 */
public final class ReadingTaker {
    private static final Duration AHEAD = Duration.ofDays(1);
    private static final int PIECE = 5_000;

    private final TelemetryStore telemetry;
    private final Access access;
    private final Clock clock;
    private final boolean dryRun;
    private final LineReport lines = new LineReport();
    private final List<CompletableFuture<?>> commits = new ArrayList<>();
    private final List<PointReading> piece = new ArrayList<>();
    private final Map<String, Point> found = new HashMap<>();

    public ReadingTaker(TelemetryStore telemetry, Access access, Clock clock, boolean dryRun) {
        this.telemetry = telemetry;
        this.access = access;
        this.clock = clock;
        this.dryRun = dryRun;
    }

    /** Something that may turn out not to be a reading. */
    interface Line {
        PointReading read();
    }

    /** Takes a line, or notes why not. */
    void take(long line, Line from) {
        try {
            piece.add(from.read());
            lines.accept();
        } catch (IllegalArgumentException e) {
            refuse(line, String.valueOf(e.getMessage()));
        }
        if (piece.size() >= PIECE) {
            deposit();
        }
    }

    void refuse(long line, String reason) {
        lines.refuse(line, reason);
    }

    private void deposit() {
        if (!piece.isEmpty() && !dryRun) {
            commits.add(telemetry.submit(
                    Deposit.of(new Event.ReadingsArrived(new Arrival(clock.instant(), Arrival.Origin.IMPORT, piece)))));
        }
        piece.clear();
    }

    /** A point by its number or id, that the person may bring readings into. */
    Point point(String name) {
        return found.computeIfAbsent(name, this::find);
    }

    private Point find(String name) {
        Point point = access.registry()
                .find(Point.class, name)
                .or(() -> name.matches("\\d{1,9}") ? access.registry().point(Integer.parseInt(name)) : Optional.empty())
                .filter(access::maySee)
                .orElseThrow(() -> new IllegalArgumentException("no point has the number or id '" + name + "'"));
        if (!access.may(Right.EDIT, point.placeId())) {
            throw new IllegalArgumentException("you may not bring in readings of '" + point.name() + "'");
        }
        if (point.formula() != null) {
            throw new IllegalArgumentException(
                    "'" + point.name() + "' is derived from other points; import readings of those");
        }
        return point;
    }

    /** A reading of a point; a value that cannot be real is taken and marked bad. */
    PointReading reading(Point point, Instant time, double value, @Nullable Quality quality) {
        if (time.isBefore(Reading.EARLIEST) || time.isAfter(clock.instant().plus(AHEAD))) {
            throw new IllegalArgumentException("the time " + time + " lies before 2000 or in the future");
        }
        if (!Double.isFinite(value)) {
            throw new IllegalArgumentException("the value is no finite number");
        }
        Quality said = quality == null ? Quality.GOOD : quality;
        return new PointReading(point.number(), new Reading(time, value, point.isPhysical(value) ? said : Quality.BAD));
    }

    /** What came of it; when this returns, everything that was taken is on disk. */
    public ImportReport report() {
        deposit();
        commits.forEach(CompletableFuture::join);
        return lines.report(dryRun);
    }
}
