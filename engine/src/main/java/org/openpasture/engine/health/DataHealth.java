package org.openpasture.engine.health;

import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import org.openpasture.api.health.DataHealthView;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.health.Examination;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.registry.Paths;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.point.PointViews;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.stereotype.Component;

/** Looks through the readings of points for what makes them unreliable. For any thread; reads beside whoever writes. */
@Component
public class DataHealth {
    private static final long MOST_READINGS = 20_000_000;
    private final TelemetryStore telemetry;
    private final PointViews views;

    DataHealth(TelemetryStore telemetry, PointViews views) {
        this.telemetry = telemetry;
        this.views = views;
    }

    /** There are more readings than are looked through at once. */
    public static final class TooMany extends RuntimeException {
        private static final long serialVersionUID = 1L;

        TooMany(long readings) {
            super("The period has about " + readings + " readings; the maximum is " + MOST_READINGS + ".");
        }
    }

    /**
     * How points are, those with the most to look at first. Derived points are left out: what is wrong with them is
     * wrong with what they follow from.
     *
     * @param maySee which devices may be named
     * @throws TooMany if there is too much to read
     */
    public List<DataHealthView> of(
            Registry registry, List<Point> points, Predicate<Device> maySee, Instant from, Instant until) {
        List<Point> measured =
                points.stream().filter(point -> point.formula() == null).toList();
        long readings = measured.stream()
                .mapToLong(point -> telemetry.series().estimate(point.number(), from, until))
                .sum();
        if (readings > MOST_READINGS) {
            throw new TooMany(readings);
        }
        return measured.stream()
                .map(point -> of(registry, point, maySee, from, until))
                .sorted(Comparator.comparing(
                                (DataHealthView view) -> view.findings().isEmpty())
                        .thenComparing(DataHealthView::coveredPercent)
                        .thenComparing(view -> -view.findings().stream()
                                .mapToInt(DataHealthView.Found::times)
                                .sum())
                        .thenComparing(DataHealthView::number))
                .toList();
    }

    private DataHealthView of(Registry registry, Point point, Predicate<Device> maySee, Instant from, Instant until) {
        Examination examination =
                new Examination(from, until, telemetry.series().estimate(point.number(), Instant.EPOCH, from) == 0);
        telemetry.series().read(point.number(), from, until, piece -> {
            for (int i = 0; i < piece.size(); i++) {
                examination.take(piece.reading(i));
            }
        });
        Examination.Result result =
                examination.result(views.interval(registry, point).orElse(Duration.ZERO), moves(point.quantity()));
        Optional<Device> device = views.source(registry, point)
                .map(Assignment::deviceId)
                .flatMap(id -> registry.find(Device.class, id))
                .filter(maySee);
        return new DataHealthView(
                point.id(),
                point.number(),
                point.name(),
                Paths.down(registry, point.placeId()),
                device.map(Device::id).orElse(null),
                device.map(Device::name).orElse(null),
                from,
                until,
                result.readings(),
                result.interval().toSeconds(),
                result.covered() * 100,
                result.findings().stream()
                        .map(one -> new DataHealthView.Found(
                                one.kind(),
                                one.times(),
                                one.from(),
                                one.until(),
                                one.longest().toSeconds()))
                        .toList());
    }

    /** Switches, counters and the like stand still and jump by nature. */
    private static boolean moves(Quantity quantity) {
        return switch (quantity) {
            case SWITCH, COUNT, OPENING, RAINFALL, ENERGY, DURATION, DEGREE_HOURS -> false;
            default -> true;
        };
    }
}
