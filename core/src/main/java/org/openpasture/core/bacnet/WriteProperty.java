package org.openpasture.core.bacnet;

import org.jspecify.annotations.Nullable;

/**
 * Writes one property (ASHRAE 135, 15.9).
 *
 * @param value {@link Datum.Nothing} to give the priority free again
 * @param priority 1 (life safety) to 16 (whatever else is left); null for properties without
 */
public record WriteProperty(
        ObjectId object,
        int property,
        Datum value,
        @Nullable Integer priority) {
    public WriteProperty {
        if (priority != null && (priority < 1 || priority > 16)) {
            throw new IllegalArgumentException("a priority is 1 to 16, not " + priority);
        }
    }

    /** The value that the present value of an object takes for a number. */
    public static Datum valueFor(ObjectId object, double number) {
        return object.usualType()
                .<Datum>map(type -> switch (type) {
                    case BINARY_INPUT, BINARY_OUTPUT, BINARY_VALUE -> new Datum.Choice(number == 0 ? 0 : 1);
                    case MULTI_STATE_INPUT,
                            MULTI_STATE_OUTPUT,
                            MULTI_STATE_VALUE,
                            POSITIVE_INTEGER_VALUE,
                            ACCUMULATOR -> new Datum.Unsigned(Math.max(0, Math.round(number)));
                    case INTEGER_VALUE -> new Datum.Signed(Math.round(number));
                    case LARGE_ANALOG_VALUE -> new Datum.Wide(number);
                    case ANALOG_INPUT, ANALOG_OUTPUT, ANALOG_VALUE, LOOP, PULSE_CONVERTER, DEVICE, TREND_LOG ->
                        new Datum.Real((float) number);
                })
                .orElseGet(() -> new Datum.Real((float) number));
    }

    public Apdu apdu(int invokeId) {
        TagWriter out = new TagWriter()
                .object(0, object)
                .unsigned(1, property)
                .open(3)
                .datum(value)
                .close(3);
        if (priority != null) {
            out.unsigned(4, priority);
        }
        return new Apdu.Confirmed(invokeId, Apdu.Service.WRITE_PROPERTY, out.bytes());
    }
}
