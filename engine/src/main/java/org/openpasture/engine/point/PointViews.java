package org.openpasture.engine.point;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.function.Predicate;
import org.openpasture.api.place.PointView;
import org.openpasture.api.reading.LatestView;
import org.openpasture.core.baseline.Baseline;
import org.openpasture.core.baseline.Spread;
import org.openpasture.core.derive.FormulaText;
import org.openpasture.core.derive.Inputs;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.limit.Boundary;
import org.openpasture.core.limit.Judgement;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.place.Point;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Paths;
import org.openpasture.core.registry.PointValues;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.heard.GatewayCounts;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.stereotype.Component;

/** How points are shown: with their newest reading, judged. */
@Component
public class PointViews {
    private static final int MOST_LOOKED_AT = 20;
    private final TelemetryStore telemetry;
    private final Clock clock;

    public PointViews(TelemetryStore telemetry, Clock clock) {
        this.telemetry = telemetry;
        this.clock = clock;
    }

    /**
     * How often the device behind a point usually reports; of a derived point, those behind its inputs, or its
     * interval.
     */
    public Optional<Duration> interval(Registry registry, Point point) {
        return interval(registry, point, source(registry, point));
    }

    private Optional<Duration> interval(Registry registry, Point point, Optional<Assignment> source) {
        Formula formula = point.formula();
        if (formula == null
                && source.isEmpty()
                && registry.gatewayCountedAt(point.id()).isPresent()) {
            return Optional.of(GatewayCounts.EVERY);
        }
        Optional<Duration> usual = formula == null
                ? source.flatMap(assignment -> registry.find(Device.class, assignment.deviceId()))
                        .flatMap(device -> registry.find(DeviceModel.class, device.modelId()))
                        .map(model -> Duration.ofSeconds(model.intervalSeconds()))
                : Inputs.of(registry, formula).stream()
                        .filter(input -> input.formula() == null)
                        .limit(MOST_LOOKED_AT)
                        .flatMap(input -> interval(registry, input).stream())
                        .min(Duration::compareTo);
        // At an interval of its own it reports no more often than what it is made of.
        return Optional.ofNullable(formula)
                .map(Formula::everyMinutes)
                .map(Duration::ofMinutes)
                .map(own -> usual.filter(inputs -> inputs.compareTo(own) > 0).orElse(own))
                .or(() -> usual);
    }

    /**
     * A point as its reader sees it.
     *
     * @param maySee which other points the reader may know of
     */
    public PointView view(Registry registry, Point point, Predicate<Point> maySee) {
        Optional<Assignment> source = source(registry, point);
        Optional<Device> device = source.flatMap(assignment -> registry.find(Device.class, assignment.deviceId()));
        return new PointView(
                point.id(),
                point.number(),
                point.name(),
                point.placeId(),
                Paths.down(registry, point.placeId()),
                registry.zoneOf(point.placeId()),
                point.quantity(),
                point.quantity().title(),
                point.unit(),
                point.quantity().unit(),
                point.decimals(),
                PointValues.words(registry, point),
                point.shown(),
                point.direction(),
                point.note(),
                point.released(),
                point.tags(),
                registry.limitsOf(point).map(LimitSet::id).orElse(null),
                point.limitSet() != null,
                latest(registry, point).orElse(null),
                device.map(Device::id).orElse(null),
                source.map(Assignment::channel).orElse(null),
                interval(registry, point, source)
                        .map(interval -> (int) interval.toSeconds())
                        .orElse(null),
                point.formula(),
                Optional.ofNullable(point.formula())
                        .map(formula -> FormulaText.of(registry, formula, maySee))
                        .orElse(null));
    }

    /** The assignment that feeds a point now. */
    public Optional<Assignment> source(Registry registry, Point point) {
        Instant now = clock.instant();
        return registry.assignmentsTo(point.id()).stream()
                .filter(assignment -> assignment.holdsAt(now))
                .findFirst();
    }

    public Optional<LatestView> latest(Registry registry, Point point) {
        return telemetry.series().last(point.number()).map(reading -> latest(registry, point, reading));
    }

    /** A reading with what its limits say of it. */
    public LatestView latest(Registry registry, Point point, Reading reading) {
        return latest(registry, point, reading, registry.limitsOf(point));
    }

    /** A reading with what some limits, in the point's unit, say of it. */
    public LatestView latest(Registry registry, Point point, Reading reading, Optional<LimitSet> limits) {
        Optional<Judgement> judgement = reading.quality() == Quality.BAD
                ? Optional.empty()
                : limits.map(set -> set.judge(
                        reading.value(),
                        registry.referenceOf(point.id())
                                .flatMap(Baseline::spread)
                                .map(Spread::median)
                                .orElse(null)));
        Optional<Boundary> next = judgement.map(Judgement::next);
        return new LatestView(
                reading.time(),
                reading.value(),
                reading.quality(),
                judgement.map(Judgement::severity).orElse(null),
                judgement.map(Judgement::zone).orElse(null),
                judgement.map(Judgement::headroomPercent).orElse(null),
                next.map(Boundary::value).orElse(null),
                next.map(Boundary::label).orElse(null));
    }
}
