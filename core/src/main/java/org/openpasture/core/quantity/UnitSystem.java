package org.openpasture.core.quantity;

import static java.util.Map.entry;

import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.openpasture.core.entity.Ids;

/** Units that are chosen together, as people are used to them. */
public enum UnitSystem {
    /** The International System of Units and what is used with it: the units that values are usually kept in. */
    METRIC("metric"),
    /** Inch, pound and degree Fahrenheit, with the gallon of the United States. */
    IMPERIAL("imperial");

    private static final Map<Quantity, String> IMPERIAL_UNITS = Map.ofEntries(
            entry(Quantity.TEMPERATURE, "°F"),
            entry(Quantity.DEW_POINT, "°F"),
            entry(Quantity.WET_BULB, "°F"),
            entry(Quantity.VIBRATION_VELOCITY, "in/s"),
            entry(Quantity.VIBRATION_ACCELERATION, "gₙ"),
            entry(Quantity.VIBRATION_DISPLACEMENT, "mil"),
            entry(Quantity.LEVEL, "ft"),
            entry(Quantity.ALTITUDE, "ft"),
            entry(Quantity.PRESSURE, "psi"),
            entry(Quantity.AIR_PRESSURE, "inHg"),
            entry(Quantity.WIND_SPEED, "mph"),
            entry(Quantity.RAINFALL, "in"),
            entry(Quantity.FLOW, "gal/min"),
            entry(Quantity.VOLUME, "gal"));

    /** What can be chosen where a quantity has more than its usual unit; what nobody reads it in is left out. */
    private static final Map<Quantity, List<String>> CHOICES = Map.ofEntries(
            entry(Quantity.TEMPERATURE, List.of("°C", "°F", "K")),
            entry(Quantity.DEW_POINT, List.of("°C", "°F", "K")),
            entry(Quantity.WET_BULB, List.of("°C", "°F", "K")),
            entry(Quantity.VIBRATION_VELOCITY, List.of("mm/s", "in/s")),
            entry(Quantity.VIBRATION_ACCELERATION, List.of("m/s²", "gₙ")),
            entry(Quantity.VIBRATION_DISPLACEMENT, List.of("µm", "mm", "mil")),
            entry(Quantity.LEVEL, List.of("m", "cm", "mm", "ft", "in")),
            entry(Quantity.ALTITUDE, List.of("m", "ft")),
            entry(Quantity.PRESSURE, List.of("bar", "mbar", "kPa", "MPa", "psi")),
            entry(Quantity.AIR_PRESSURE, List.of("hPa", "mbar", "kPa", "inHg")),
            entry(Quantity.VAPOUR_PRESSURE_DEFICIT, List.of("kPa", "hPa", "mbar")),
            entry(Quantity.WIND_SPEED, List.of("m/s", "km/h", "mph", "kn")),
            entry(Quantity.RAINFALL, List.of("mm", "in")),
            entry(Quantity.FLOW, List.of("m³/h", "l/s", "l/min", "l/h", "gal/min")),
            entry(Quantity.VOLUME, List.of("m³", "hl", "l", "gal")),
            entry(Quantity.ABSOLUTE_HUMIDITY, List.of("g/m³", "mg/m³")),
            entry(Quantity.CARBON_DIOXIDE, List.of("ppm", "ppb")),
            entry(Quantity.POWER, List.of("kW", "W", "MW")),
            entry(Quantity.ENERGY, List.of("kWh", "MWh", "Wh", "kJ")),
            entry(Quantity.DURATION, List.of("h", "min", "d")),
            entry(Quantity.SPEED_OF_ROTATION, List.of("1/min", "Hz")));

    private final String id;

    UnitSystem(String id) {
        this.id = id;
    }

    /** The units of a quantity that a person can choose from, the usual one first. */
    public static List<String> choices(Quantity quantity) {
        return CHOICES.getOrDefault(quantity, List.of(quantity.unit()));
    }

    /** @throws IllegalArgumentException naming the systems there are */
    public static UnitSystem of(String id) {
        return Ids.of(values(), UnitSystem::id, "system of units", id);
    }

    public String id() {
        return id;
    }

    /** The unit of a quantity in this system; its usual one where the system has none of its own. */
    public String unit(Quantity quantity) {
        return switch (this) {
            case METRIC -> quantity.unit();
            case IMPERIAL -> IMPERIAL_UNITS.getOrDefault(quantity, quantity.unit());
        };
    }

    /** The units of all quantities that are read in more than one. */
    public Map<Quantity, String> units() {
        return CHOICES.keySet().stream().collect(Collectors.toMap(quantity -> quantity, this::unit));
    }
}
