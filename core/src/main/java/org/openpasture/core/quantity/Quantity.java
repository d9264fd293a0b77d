package org.openpasture.core.quantity;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import org.openpasture.core.entity.Ids;

/**
 * What a point measures, with the unit that it is kept in and the range outside of which a value cannot be real. The
 * range is physical (nothing is colder than absolute zero, no air is wetter than 100 %), not a limit to be watched.
 */
public enum Quantity {
    VIBRATION_VELOCITY("vibration-velocity", "vibration velocity, RMS", "mm/s", 0, 1000, 2),
    TEMPERATURE("temperature", "temperature", "°C", -273.15, 2000, 1),
    HUMIDITY("humidity", "relative humidity", "%", 0, 100, 1),
    CARBON_DIOXIDE("carbon-dioxide", "carbon dioxide", "ppm", 0, 1_000_000, 0),
    CARBON_MONOXIDE("carbon-monoxide", "carbon monoxide", "ppm", 0, 1_000_000, 1),
    AMMONIA("ammonia", "ammonia", "ppm", 0, 1_000_000, 1),
    HYDROGEN_SULPHIDE("hydrogen-sulphide", "hydrogen sulphide", "ppm", 0, 1_000_000, 1),
    NITROGEN_DIOXIDE("nitrogen-dioxide", "nitrogen dioxide", "ppm", 0, 1_000_000, 2),
    /** Particles up to 2.5 µm, and up to 10 µm. */
    FINE_DUST("fine-dust", "fine dust, PM2.5", "µg/m³", 0, 1_000_000, 0),
    COARSE_DUST("coarse-dust", "dust, PM10", "µg/m³", 0, 1_000_000, 0),
    ORGANIC_VAPOURS("organic-vapours", "volatile organic compounds", "mg/m³", 0, 100_000, 2),
    SOUND_LEVEL("sound-level", "sound level", "dB(A)", -20, 250, 1),
    ILLUMINANCE("illuminance", "illuminance", "lx", 0, 1_000_000, 0),
    CONDUCTIVITY("conductivity", "electrical conductivity", "mS/cm", 0, 10_000, 2),
    ACIDITY("acidity", "acidity", "pH", -2, 16, 2),
    OXYGEN("oxygen", "oxygen", "% vol", 0, 100, 1),
    FLAMMABLE_GAS("flammable-gas", "flammable gas", "% LEL", 0, 100, 1),
    LEVEL("level", "level", "m", 0, 1000, 2),
    FILL("fill", "fill", "%", 0, 100, 1),
    OPENING("opening", "opening", "%", 0, 100, 0),
    PRESSURE("pressure", "pressure", "bar", 0, 10_000, 2),
    VOLTAGE("voltage", "voltage", "V", -1_000_000, 1_000_000, 2),
    AIR_PRESSURE("air-pressure", "air pressure", "hPa", 0, 2_000, 1),
    WIND_SPEED("wind-speed", "wind speed", "m/s", 0, 150, 1),
    WIND_DIRECTION("wind-direction", "wind direction", "°", 0, 360, 0),
    RAINFALL("rainfall", "rainfall", "mm", 0, 10_000, 1),
    SOIL_MOISTURE("soil-moisture", "soil moisture", "%", 0, 100, 1),
    FLOW("flow", "flow", "m³/h", -1_000_000, 1_000_000, 2),
    CURRENT("current", "electric current", "A", -1_000_000, 1_000_000, 2),
    POWER("power", "power", "kW", -1_000_000, 1_000_000, 2),
    ENERGY("energy", "energy", "kWh", -1e12, 1e12, 1),
    FREQUENCY("frequency", "frequency", "Hz", 0, 1_000_000, 2),
    SIGNAL("signal", "signal strength", "dBm", -200, 50, 0),
    HEAT_INDEX("heat-index", "temperature-humidity index", "THI", -100, 200, 1),
    /** Apart from the temperature, whose limits do not hold for it; likewise the wet bulb. */
    DEW_POINT("dew-point", "dew point", "°C", -150, 400, 1),
    WET_BULB("wet-bulb", "wet-bulb temperature", "°C", -150, 400, 1),
    VAPOUR_PRESSURE_DEFICIT("vapour-pressure-deficit", "vapour pressure deficit", "kPa", 0, 100, 2),
    ABSOLUTE_HUMIDITY("absolute-humidity", "absolute humidity", "g/m³", 0, 1_000, 1),
    VOLUME("volume", "volume", "m³", -1e9, 1e12, 2),
    ALTITUDE("altitude", "height above sea level", "m", -1_000, 50_000, 0),
    DURATION("duration", "duration", "h", 0, 1e9, 1),
    DEGREE_HOURS("degree-hours", "degree hours", "K·h", 0, 1e9, 1),
    /** Of something that moves, by WGS 84; likewise the longitude. */
    LATITUDE("latitude", "latitude", "°", -90, 90, 6),
    LONGITUDE("longitude", "longitude", "°", -180, 180, 6),
    VIBRATION_ACCELERATION("vibration-acceleration", "vibration acceleration, RMS", "m/s²", 0, 100_000, 2),
    VIBRATION_DISPLACEMENT("vibration-displacement", "vibration displacement, RMS", "µm", 0, 1_000_000, 1),
    CREST_FACTOR("crest-factor", "crest factor", "", 1, 1_000, 1),
    KURTOSIS("kurtosis", "kurtosis", "", 1, 100_000, 1),
    SPEED_OF_ROTATION("speed-of-rotation", "speed of rotation", "1/min", 0, 1_000_000, 0),
    SWITCH("switch", "on or off", "", 0, 1, 0),
    COUNT("count", "count", "", 0, 1e12, 0),
    OTHER("other", "other", "", -1e12, 1e12, 2);

    private final String id;
    private final String title;
    private final String unit;
    private final double lowest;
    private final double highest;
    private final int decimals;

    Quantity(String id, String title, String unit, double lowest, double highest, int decimals) {
        this.id = id;
        this.title = title;
        this.unit = unit;
        this.lowest = lowest;
        this.highest = highest;
        this.decimals = decimals;
    }

    /**
     * The quantity of an id such as {@code vibration-velocity}.
     *
     * @throws IllegalArgumentException naming the ids there are
     */
    @JsonCreator
    public static Quantity of(String id) {
        return Ids.of(values(), Quantity::id, "quantity", id);
    }

    @JsonValue
    public String id() {
        return id;
    }

    public String title() {
        return title;
    }

    /** Whether values in a unit can be converted to its own; where it has none, any unit is as good. */
    public boolean takes(String other) {
        return unit.isEmpty() || Units.areAlike(other, unit);
    }

    /** The unit in which values of this quantity are kept; empty for numbers without one. */
    public String unit() {
        return unit;
    }

    /** Decimals that are worth showing. */
    public int decimals() {
        return decimals;
    }

    /** Whether a value can be real. False for NaN and infinities. */
    public boolean isPhysical(double value) {
        return value >= lowest && value <= highest;
    }

    public double lowest() {
        return lowest;
    }

    public double highest() {
        return highest;
    }
}
