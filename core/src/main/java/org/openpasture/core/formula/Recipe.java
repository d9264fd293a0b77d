package org.openpasture.core.formula;

import static org.openpasture.core.quantity.Quantity.FILL;
import static org.openpasture.core.quantity.Quantity.LEVEL;
import static org.openpasture.core.quantity.Quantity.VOLUME;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.List;
import java.util.Optional;
import java.util.function.DoubleBinaryOperator;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.entity.Ids;
import org.openpasture.core.quantity.Quantity;

/**
 * Prepared formulas. Each says what it needs and in which unit it computes; points in other units are converted. The
 * sources of the formulas stand where they are computed.
 */
public enum Recipe {
    DEW_POINT("dew-point", "Dew point", Quantity.DEW_POINT, Air::dewPoint),
    VAPOUR_PRESSURE_DEFICIT(
            "vapour-pressure-deficit",
            "Vapour pressure deficit",
            Quantity.VAPOUR_PRESSURE_DEFICIT,
            Air::vapourPressureDeficit),
    ABSOLUTE_HUMIDITY("absolute-humidity", "Absolute humidity", Quantity.ABSOLUTE_HUMIDITY, Air::absoluteHumidity),
    WET_BULB("wet-bulb", "Wet-bulb temperature", Quantity.WET_BULB, Air::wetBulb),
    HEAT_INDEX("heat-index", "Temperature-humidity index", Quantity.HEAT_INDEX, Air::temperatureHumidityIndex),
    ALTITUDE(
            "altitude",
            "Pressure altitude",
            List.of(new Input("pressure", Quantity.AIR_PRESSURE)),
            List.of(new Parameter("seaLevel", "Pressure at sea level", "hPa", 1013.25, 800, 1100)),
            List.of(Quantity.ALTITUDE),
            (in, of, result) -> Air.altitude(in[0], of[0])),
    SEA_LEVEL_PRESSURE(
            "sea-level-pressure",
            "Pressure at sea level",
            List.of(new Input("pressure", Quantity.AIR_PRESSURE)),
            List.of(new Parameter("altitude", "Height above sea level", "m", null, -500, 9000)),
            List.of(Quantity.AIR_PRESSURE),
            (in, of, result) -> Air.atSeaLevel(in[0], of[0])),
    HYDROSTATIC_LEVEL(
            "hydrostatic-level",
            "Level from pressure",
            List.of(new Input("pressure", Quantity.PRESSURE)),
            List.of(new Parameter("density", "Density of the liquid", "kg/m³", 1000.0, 1, 20_000)),
            List.of(LEVEL),
            (in, of, result) -> in[0] * 100_000 / (of[0] * 9.80665)),
    LAYER(
            "layer",
            "Depth of the upper liquid",
            List.of(new Input("level", LEVEL), new Input("interface", LEVEL)),
            List.of(),
            List.of(LEVEL),
            (in, of, result) -> Math.max(0, in[0] - in[1])),
    TANK_BOX(
            "tank-box",
            "Contents of a rectangular tank",
            List.of(length("length", "Length"), length("width", "Width"), length("height", "Height")),
            (level, of) -> Tank.upright(level, of[0] * of[1], of[2])),
    TANK_UPRIGHT(
            "tank-upright",
            "Contents of an upright cylinder",
            List.of(length("diameter", "Diameter"), length("height", "Height")),
            (level, of) -> Tank.upright(level, Tank.circle(of[0]), of[1])),
    TANK_LYING(
            "tank-lying",
            "Contents of a lying cylinder",
            List.of(
                    length("diameter", "Diameter"),
                    length("length", "Length between the ends"),
                    new Parameter("endDepth", "Depth of each end (0 if flat)", "m", 0.0, 0, 100)),
            (level, of) -> Tank.lying(level, of[0], of[1], of[2])),
    TANK_CONE(
            "tank-cone",
            "Contents of a cylinder with a cone below",
            List.of(
                    length("diameter", "Diameter"),
                    length("coneHeight", "Height of the cone"),
                    length("height", "Height of the whole")),
            (level, of) -> of[1] > of[2] ? Double.NaN : Tank.coneBottom(level, of[0], of[1], of[2])),
    TANK_SPHERE(
            "tank-sphere",
            "Contents of a spherical tank",
            List.of(length("diameter", "Diameter")),
            (level, of) -> Tank.sphere(level, of[0])),
    RUN_HOURS(
            "run-hours",
            "Run hours",
            List.of(new Input("state", Quantity.SWITCH)),
            List.of(),
            List.of(Quantity.DURATION),
            (before, now, hours, of) -> before > 0 ? hours : 0),
    STARTS(
            "starts",
            "Starts",
            List.of(new Input("state", Quantity.SWITCH)),
            List.of(),
            List.of(Quantity.COUNT),
            (before, now, hours, of) -> before <= 0 && now > 0 ? 1 : 0),
    ENERGY_FROM_POWER(
            "energy-from-power",
            "Energy from power",
            List.of(new Input("power", Quantity.POWER)),
            List.of(),
            List.of(Quantity.ENERGY),
            (before, now, hours, of) -> before * hours),
    VOLUME_FROM_FLOW(
            "volume-from-flow",
            "Volume from flow",
            List.of(new Input("flow", Quantity.FLOW)),
            List.of(),
            List.of(VOLUME),
            (before, now, hours, of) -> before * hours),
    DEGREE_HOURS(
            "degree-hours",
            "Degree hours above a temperature",
            List.of(new Input("temperature", Quantity.TEMPERATURE)),
            List.of(new Parameter("base", "Above", "°C", null, -100, 1000)),
            List.of(Quantity.DEGREE_HOURS),
            (before, now, hours, of) -> Math.max(0, before - of[0]) * hours),
    POWER_FROM_ENERGY(
            "power-from-energy",
            "Power from an energy meter",
            new Input("energy", Quantity.ENERGY),
            Quantity.POWER,
            Recipe::perHour),
    FLOW_FROM_VOLUME(
            "flow-from-volume",
            "Flow from a volume meter",
            new Input("volume", VOLUME),
            Quantity.FLOW,
            Recipe::perHour);

    /** What a formula needs of a point. */
    public record Input(String name, Quantity quantity) {}

    /**
     * A number that people give once.
     *
     * @param usual null where there is none, so that it must be given
     */
    public record Parameter(
            String name,
            String title,
            String unit,
            @Nullable Double usual,
            double lowest,
            double highest) {}

    /** A formula over values of one moment. */
    private interface Momentary {
        /**
         * The value in the result's usual unit.
         *
         * @param in values of the inputs in their quantities' usual units
         * @param of the parameters
         * @param result which of its results is wanted
         */
        double of(double[] in, double[] of, Quantity result);
    }

    /** What a total grows by from one reading to the next. */
    private interface Running {
        /**
         * The growth in the result's usual unit.
         *
         * @param before the value that stood until now
         * @param hours for how long it stood
         */
        double of(double before, double now, double hours, double[] of);
    }

    /** What follows from how far a meter went between two readings. */
    private interface Metered {
        /**
         * The value in the result's usual unit; NaN where the meter was set back.
         *
         * @param hours between the readings
         */
        double of(double before, double now, double hours);
    }

    /** How much is in a tank. */
    private interface Contents {
        /**
         * The volume in cubic metres.
         *
         * @param level in metres; above the top it counts as the top
         * @param of the measures of the tank
         */
        double of(double level, double[] of);
    }

    private final String id;
    private final String title;
    private final List<Input> inputs;
    private final List<Parameter> parameters;
    private final List<Quantity> results;
    private final @Nullable Momentary momentary;
    private final @Nullable Running running;
    private final @Nullable Metered metered;

    /** What follows from temperature and humidity of air. */
    Recipe(String id, String title, Quantity result, DoubleBinaryOperator ofAir) {
        this(
                id,
                title,
                List.of(new Input("temperature", Quantity.TEMPERATURE), new Input("humidity", Quantity.HUMIDITY)),
                List.of(),
                List.of(result),
                (in, of, wanted) -> ofAir.applyAsDouble(in[0], in[1]));
    }

    /** The contents of a tank by its level, as a volume or in per cent of the whole. */
    Recipe(String id, String title, List<Parameter> parameters, Contents contents) {
        this(
                id,
                title,
                List.of(new Input("level", LEVEL)),
                parameters,
                List.of(VOLUME, FILL),
                (in, of, wanted) -> wanted == FILL
                        ? contents.of(in[0], of) / contents.of(Double.MAX_VALUE, of) * 100
                        : contents.of(in[0], of));
    }

    Recipe(
            String id,
            String title,
            List<Input> inputs,
            List<Parameter> parameters,
            List<Quantity> results,
            Momentary momentary) {
        this(id, title, inputs, parameters, results, momentary, null, null);
    }

    Recipe(
            String id,
            String title,
            List<Input> inputs,
            List<Parameter> parameters,
            List<Quantity> results,
            Running running) {
        this(id, title, inputs, parameters, results, null, running, null);
    }

    /** What a meter says about the time between its readings. */
    Recipe(String id, String title, Input meter, Quantity result, Metered metered) {
        this(id, title, List.of(meter), List.of(), List.of(result), null, null, metered);
    }

    Recipe(
            String id,
            String title,
            List<Input> inputs,
            List<Parameter> parameters,
            List<Quantity> results,
            @Nullable Momentary momentary,
            @Nullable Running running,
            @Nullable Metered metered) {
        this.id = id;
        this.title = title;
        this.inputs = inputs;
        this.parameters = parameters;
        this.results = results;
        this.momentary = momentary;
        this.running = running;
        this.metered = metered;
    }

    private static double perHour(double before, double now, double hours) {
        return now < before ? Double.NaN : (now - before) / hours;
    }

    private static Parameter length(String name, String title) {
        return new Parameter(name, title, "m", null, 0.001, 1000);
    }

    @JsonCreator
    public static Recipe of(String id) {
        return Ids.of(values(), Recipe::id, "formula", id);
    }

    @JsonValue
    public String id() {
        return id;
    }

    public String title() {
        return title;
    }

    public List<Input> inputs() {
        return inputs;
    }

    public List<Parameter> parameters() {
        return parameters;
    }

    /** What it can give, the usual first. */
    public List<Quantity> results() {
        return results;
    }

    /** Whether it is a total that grows from reading to reading, rather than a value of the moment. */
    public boolean isTotal() {
        return running != null;
    }

    /** Whether it is what a meter says about the time since its reading before. */
    public boolean isOfMeter() {
        return metered != null;
    }

    /** Whether it rests on a reading before, so that it has one at each reading of its input and at no others. */
    public boolean looksBack() {
        return isTotal() || isOfMeter();
    }

    /** The number with a name. */
    public Optional<Parameter> parameter(String name) {
        return parameters.stream().filter(one -> one.name().equals(name)).findFirst();
    }

    /** What a meter says; NaN where it was set back. Only for those of meters. */
    public double metered(double before, double now, double hours) {
        return metered == null ? Double.NaN : metered.of(before, now, hours);
    }

    /** The value of a moment; NaN where the formula does not hold. Not for those that look back. */
    public double value(double[] in, double[] of, Quantity result) {
        return momentary == null ? Double.NaN : momentary.of(in, of, result);
    }

    /** What a total grows by. Only for totals. */
    public double growth(double before, double now, double hours, double[] of) {
        return running == null ? Double.NaN : running.of(before, now, hours, of);
    }
}
