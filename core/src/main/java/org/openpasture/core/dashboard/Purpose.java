package org.openpasture.core.dashboard;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.EnumSet;
import java.util.Locale;
import java.util.Set;
import org.openpasture.core.entity.Ids;
import org.openpasture.core.quantity.Quantity;

/** What a dashboard of a place is for; it says which quantities come first and which panels show them. */
public enum Purpose {
    /** Bringing sensors in: everything that is there, over the last hour. */
    COMMISSIONING(EnumSet.allOf(Quantity.class)),
    /** How machines run: vibration by direction, heat of bearings, pressure, what runs. */
    MACHINE(EnumSet.of(
            Quantity.VIBRATION_VELOCITY,
            Quantity.TEMPERATURE,
            Quantity.PRESSURE,
            Quantity.CURRENT,
            Quantity.POWER,
            Quantity.SWITCH)),
    /** Whether what must stay cold stayed cold. */
    COLD_CHAIN(EnumSet.of(Quantity.TEMPERATURE, Quantity.HUMIDITY, Quantity.SWITCH)),
    /** The air that animals and people breathe. */
    BARN(EnumSet.of(
            Quantity.AMMONIA,
            Quantity.CARBON_DIOXIDE,
            Quantity.CARBON_MONOXIDE,
            Quantity.HEAT_INDEX,
            Quantity.TEMPERATURE,
            Quantity.HUMIDITY)),
    /** A site that is seldom visited: supplies, power, levels. */
    REMOTE_SITE(EnumSet.of(
            Quantity.LEVEL,
            Quantity.FILL,
            Quantity.VOLUME,
            Quantity.VOLTAGE,
            Quantity.CURRENT,
            Quantity.FREQUENCY,
            Quantity.PRESSURE,
            Quantity.FLOW,
            Quantity.SIGNAL,
            Quantity.SWITCH));

    private final Set<Quantity> quantities;

    Purpose(Set<Quantity> quantities) {
        this.quantities = quantities;
    }

    @JsonCreator
    public static Purpose of(String id) {
        return Ids.of(values(), Purpose::id, "purpose", id);
    }

    @JsonValue
    public String id() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** Whether points with a quantity belong on it. */
    public boolean isAbout(Quantity quantity) {
        return quantities.contains(quantity);
    }
}
