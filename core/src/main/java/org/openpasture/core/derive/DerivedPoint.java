package org.openpasture.core.derive;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.IntFunction;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.formula.Expression;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.formula.Recipe;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Averaging;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.quantity.Units;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Registry;

/** A derived point, ready to compute: its inputs by number, what converts their units, its formula read. Immutable. */
final class DerivedPoint {
    private static final int DECIMALS_MORE = 2;
    /** A total grows in small steps that must not be rounded away. */
    private static final int DECIMALS_OF_TOTALS = 9;

    private final Registry registry;
    private final Point point;
    private final Formula formula;
    private final List<Point> inputs;
    private final Duration within;
    private final @Nullable Expression expression;

    private DerivedPoint(
            Registry registry, Point point, Formula formula, List<Point> inputs, @Nullable Expression expression) {
        this.registry = registry;
        this.point = point;
        this.formula = formula;
        this.inputs = inputs;
        this.within = formula instanceof Formula.OverTime over
                ? RunningWindow.lookBack(over.averaging())
                : Duration.ofMinutes(formula.withinMinutesOrUsual());
        this.expression = expression;
    }

    /** Empty if it is measured, or cannot be computed because a point that it needs is gone. */
    static Optional<DerivedPoint> of(Registry registry, Point point) {
        Formula formula = point.formula();
        if (formula == null) {
            return Optional.empty();
        }
        List<Point> inputs = Inputs.of(registry, formula);
        int needed =
                switch (formula) {
                    case Formula.Prepared prepared -> prepared.recipe().inputs().size();
                    case Formula.Written written -> written.inputs().size();
                    case Formula.Over over -> 0;
                    case Formula.OverTime over -> 1;
                    case Formula.While some -> 2;
                };
        if (inputs.size() < needed) {
            return Optional.empty();
        }
        try {
            Expression expression = formula instanceof Formula.Written written
                    ? Expression.parse(written.text(), written.inputs().keySet())
                    : null;
            return Optional.of(new DerivedPoint(registry, point, formula, inputs, expression));
        } catch (IllegalArgumentException e) {
            // It was checked when it was saved; a version that reads less leaves it without values.
            return Optional.empty();
        }
    }

    Point point() {
        return point;
    }

    List<Point> inputs() {
        return inputs;
    }

    /** Whether its readings rest on those before: a total, or a formula that looks at its own value. */
    boolean isTotal() {
        return formula instanceof Formula.Prepared prepared && prepared.recipe().isTotal()
                || expression != null && expression.looksAtItself();
    }

    /**
     * The moments at which it has readings of its own accord, after one moment of its inputs and up to another: none
     * for what has a reading whenever an input has one. After a gap they end where its inputs are too old.
     */
    List<Instant> due(Instant after, Instant until) {
        Integer every = formula.everyMinutes();
        if (every == null || !isAtIntervals()) {
            return List.of();
        }
        long step = Duration.ofMinutes(every).toMillis();
        long last = Math.min(until.toEpochMilli(), after.plus(within).toEpochMilli());
        List<Instant> found = new ArrayList<>();
        for (long at = Math.floorDiv(after.toEpochMilli(), step) * step + step; at <= last; at += step) {
            found.add(Instant.ofEpochMilli(at));
        }
        return found;
    }

    /** Whether it has readings at an interval, and not whenever an input has one. */
    boolean isAtIntervals() {
        return formula.everyMinutes() != null && !looksBack();
    }

    /**
     * Whether it may have a reading at a moment at which an input has one: at its interval, else where one of these may
     * be used.
     *
     * @param at the newest reading of each input at the moment, the new ones among them
     */
    boolean isDueAt(Instant time, IntFunction<Optional<Reading>> at) {
        IntFunction<Optional<Reading>> usable = usable(at);
        return isAtIntervals()
                ? due(time.minusMillis(1), time).contains(time)
                : leading().stream().anyMatch(input -> usable.apply(input.number())
                        .filter(one -> one.time().equals(time))
                        .isPresent());
    }

    /** The inputs of which each reading may give one. */
    private List<Point> leading() {
        return formula instanceof Formula.While ? inputs.subList(0, 1) : inputs;
    }

    /** Not what was read while a sensor was being checked. */
    private IntFunction<Optional<Reading>> usable(IntFunction<Optional<Reading>> of) {
        return number -> of.apply(number).filter(one -> isUsable(number, one));
    }

    /** What was saved is checked for it; a version that reads more must not lose what rests on itself. */
    private boolean looksBack() {
        return isTotal()
                || formula instanceof Formula.Prepared prepared
                        && prepared.recipe().looksBack()
                || expression != null && expression.looksBack();
    }

    /** What its readings run over time by; empty if they do not. */
    Optional<Averaging> averaging() {
        return formula instanceof Formula.OverTime over ? Optional.of(over.averaging()) : Optional.empty();
    }

    /** Whether a reading of an input may be used: not what was read while the sensor was being checked. */
    boolean isUsable(int input, Reading reading) {
        return !registry.isBeingChecked(input, reading.time());
    }

    /** The newest moment of which one of its inputs has a reading; empty if none has. */
    Optional<Instant> newestOf(IntFunction<Optional<Reading>> newest) {
        return inputs.stream()
                .flatMap(input -> newest.apply(input.number()).stream())
                .map(Reading::time)
                .max(Instant::compareTo);
    }

    /** How old an input may be. */
    Duration within() {
        return within;
    }

    /**
     * Its reading at a moment; empty where it cannot be told. What was read while a sensor was being checked is not
     * used.
     *
     * @param newestBefore the newest reading of each input, and of itself, before the moment
     * @param newestAt the newest reading of each at the moment, the new ones among them
     * @param window of one that runs over time, what its input read up to the moment; asked for of such a one only
     */
    Optional<Reading> at(
            Instant time,
            IntFunction<Optional<Reading>> newestBefore,
            IntFunction<Optional<Reading>> newestAt,
            Supplier<RunningWindow> window) {
        IntFunction<Optional<Reading>> before = usable(newestBefore);
        IntFunction<Optional<Reading>> at = usable(newestAt);
        return switch (formula) {
            case Formula.Prepared prepared when prepared.recipe().isTotal() -> total(prepared, time, before, at);
            case Formula.Prepared prepared when prepared.recipe().isOfMeter() -> metered(prepared, time, before, at);
            case Formula.Prepared prepared ->
                known(time, at)
                        .flatMap(readings -> reading(
                                time,
                                fromUsual(
                                        prepared.recipe()
                                                .value(usual(readings), parameters(prepared), point.quantity()),
                                        point.quantity()),
                                worst(readings)));
            case Formula.Written written ->
                known(time, at)
                        // What cannot be real leaves what rests on itself as it was.
                        .filter(readings -> !isTotal() || worst(readings) != Quality.BAD)
                        .flatMap(readings -> reading(
                                time,
                                Objects.requireNonNull(expression)
                                        .value(
                                                readings.stream()
                                                        .mapToDouble(Reading::value)
                                                        .toArray(),
                                                before.apply(point.number())
                                                        .map(Reading::value)
                                                        .orElse(Double.NaN),
                                                earlier(time, before)),
                                worst(readings)));
            case Formula.Over over -> over(over, time, at);
            case Formula.OverTime over ->
                window.get()
                        .at(time)
                        .flatMap(result -> reading(
                                time,
                                Units.convert(result.value(), inputs.getFirst().unit(), point.unit())
                                        .orElse(result.value()),
                                result.quality()));
            case Formula.While some -> letThrough(some, time, at);
        };
    }

    /** What its point reads, if the other one says so; a value of that one that cannot be real says nothing. */
    private Optional<Reading> letThrough(Formula.While some, Instant time, IntFunction<Optional<Reading>> at) {
        Point measured = inputs.getFirst();
        return known(time, at)
                .filter(readings -> readings.getLast().quality() != Quality.BAD
                        && some.isOpenAt(readings.getLast().value()))
                .flatMap(readings -> reading(
                        time,
                        Units.convert(readings.getFirst().value(), measured.unit(), point.unit())
                                .orElse(readings.getFirst().value()),
                        worst(readings)));
    }

    /** The newest reading of each input; empty if one is missing or too old. */
    private Optional<List<Reading>> known(Instant time, IntFunction<Optional<Reading>> at) {
        List<Reading> readings = new ArrayList<>(inputs.size());
        for (Point input : inputs) {
            Optional<Reading> reading = at.apply(input.number()).filter(one -> isNear(one, time));
            if (reading.isEmpty()) {
                return Optional.empty();
            }
            readings.add(reading.get());
        }
        return Optional.of(readings);
    }

    /** What each input was before a moment; NaN where that is not known, or too long ago. */
    private double[] earlier(Instant time, IntFunction<Optional<Reading>> before) {
        return inputs.stream()
                .mapToDouble(input -> before.apply(input.number())
                        .filter(one -> one.time().isBefore(time) && isNear(one, time) && one.quality() != Quality.BAD)
                        .map(Reading::value)
                        .orElse(Double.NaN))
                .toArray();
    }

    private boolean isNear(Reading reading, Instant time) {
        return Duration.between(reading.time(), time).compareTo(within) <= 0;
    }

    private double[] usual(List<Reading> readings) {
        double[] values = new double[readings.size()];
        for (int i = 0; i < values.length; i++) {
            values[i] = toUsual(inputs.get(i), readings.get(i).value());
        }
        return values;
    }

    private static double toUsual(Point input, double value) {
        return Units.convert(value, input.unit(), input.quantity().unit()).orElse(value);
    }

    private double fromUsual(double value, Quantity quantity) {
        return Units.convert(value, quantity.unit(), point.unit()).orElse(value);
    }

    private static double[] parameters(Formula.Prepared prepared) {
        return prepared.recipe().parameters().stream()
                .mapToDouble(
                        parameter -> Optional.ofNullable(prepared.parameters().get(parameter.name()))
                                .or(() -> Optional.ofNullable(parameter.usual()))
                                .orElse(Double.NaN))
                .toArray();
    }

    private static Quality worst(List<Reading> readings) {
        return Quality.ofCode(readings.stream()
                .mapToInt(reading -> reading.quality().code())
                .max()
                .orElse(0));
    }

    private Optional<Reading> over(Formula.Over over, Instant time, IntFunction<Optional<Reading>> at) {
        double[] values = inputs.stream()
                .flatMapToDouble(input -> at
                        .apply(input.number())
                        .filter(one -> isNear(one, time) && one.quality() != Quality.BAD)
                        .map(one -> toUsual(input, one.value()))
                        .stream()
                        .mapToDouble(Double::doubleValue))
                .toArray();
        if (values.length == 0) {
            return Optional.empty();
        }
        Quality quality = values.length < inputs.size() ? Quality.UNCERTAIN : Quality.GOOD;
        return reading(
                time, fromUsual(over.statistic().of(values), over.selection().quantity()), quality);
    }

    /**
     * A value stands until the next one. What stood for longer than an hour, or what was said, is not known to have
     * stood: it adds nothing, and makes the reading uncertain. A bad value adds nothing either.
     */
    private Optional<Reading> total(
            Formula.Prepared prepared,
            Instant time,
            IntFunction<Optional<Reading>> before,
            IntFunction<Optional<Reading>> at) {
        Point input = inputs.getFirst();
        Optional<Reading> now =
                at.apply(input.number()).filter(one -> one.time().equals(time) && one.quality() != Quality.BAD);
        if (now.isEmpty()) {
            return Optional.empty();
        }
        Optional<Reading> total = before.apply(point.number());
        double sum = total.map(Reading::value).orElse(0.0);
        Optional<Reading> then = before.apply(input.number())
                .filter(one -> one.quality() != Quality.BAD && one.time().isBefore(time));
        if (then.isEmpty() || !isNear(then.get(), time)) {
            return reading(time, sum, then.isEmpty() && total.isEmpty() ? Quality.GOOD : Quality.UNCERTAIN);
        }
        double hours = Duration.between(then.get().time(), time).toMillis() / 3_600_000.0;
        Recipe recipe = prepared.recipe();
        double growth = recipe.growth(
                toUsual(input, then.get().value()), toUsual(input, now.get().value()), hours, parameters(prepared));
        double inPoint = Units.convertDifference(growth, point.quantity().unit(), point.unit())
                .orElse(growth);
        return reading(time, sum + inPoint, now.get().quality());
    }

    /** What a meter says about the time since its last reading; nothing after a gap, or where it was set back. */
    private Optional<Reading> metered(
            Formula.Prepared prepared,
            Instant time,
            IntFunction<Optional<Reading>> before,
            IntFunction<Optional<Reading>> at) {
        Point meter = inputs.getFirst();
        Optional<Reading> now =
                at.apply(meter.number()).filter(one -> one.time().equals(time) && one.quality() != Quality.BAD);
        return before.apply(meter.number())
                .filter(one -> one.quality() != Quality.BAD && one.time().isBefore(time) && isNear(one, time))
                .flatMap(then -> now.flatMap(latest -> reading(
                        time,
                        fromUsual(
                                prepared.recipe()
                                        .metered(
                                                toUsual(meter, then.value()),
                                                toUsual(meter, latest.value()),
                                                Duration.between(then.time(), time)
                                                                .toMillis()
                                                        / 3_600_000.0),
                                point.quantity()),
                        worst(List.of(then, latest)))));
    }

    private Optional<Reading> reading(Instant time, double value, Quality quality) {
        if (!Double.isFinite(value)) {
            return Optional.empty();
        }
        double rounded =
                rounded(value, isTotal() ? DECIMALS_OF_TOTALS : point.quantity().decimals() + DECIMALS_MORE);
        return Optional.of(new Reading(time, rounded, point.isPhysical(rounded) ? quality : Quality.BAD));
    }

    private static double rounded(double value, int decimals) {
        double scale = Math.pow(10, decimals);
        double back = Math.rint(value * scale) / scale;
        return Double.isFinite(back) ? back : value;
    }
}
