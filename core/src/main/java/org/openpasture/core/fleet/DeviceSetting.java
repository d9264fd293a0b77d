package org.openpasture.core.fleet;

import java.nio.ByteBuffer;
import java.util.HexFormat;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.bytes.Bytes;
import org.openpasture.core.layout.FieldType;

/**
 * Something that can be changed in devices of a model from here, and the bytes by which it is said: a fixed beginning,
 * then the number {@code value / scale}. A device that calls in by HTTP is given the value itself in the answer to its
 * next contact.
 *
 * @param name for programs, "interval"
 * @param title for people, "Report interval"
 * @param port on which the device takes it by radio, 1 to 223; 0 for one that calls in
 * @param prefix hex digits before the number; null for none
 * @param type of the number; null for u32
 * @param order "big" or "little"; null for big
 * @param scale null for 1
 * @param inConfigurationMode whether the device takes it only in its configuration mode; null for no
 * @param usualInterval whether this is the interval of reports in seconds, whose cost in battery can be told; null for
 *     no
 * @param reportedBy the channel by which a device that calls in tells what it has taken over; null for one of the
 *     setting's name
 */
public record DeviceSetting(
        String name,
        String title,
        String unit,
        double min,
        double max,
        int port,
        String prefix,
        FieldType type,
        @Nullable String order,
        @Nullable Double scale,
        @Nullable Boolean inConfigurationMode,
        @Nullable Boolean usualInterval,
        @Nullable String reportedBy) {
    public DeviceSetting {
        prefix = prefix == null ? "" : prefix;
        type = type == null ? FieldType.U32 : type;
        if (port < 0 || port > 223) {
            throw new IllegalArgumentException(
                    "setting '" + name + "': the port is 1 to 223, or 0 for a device that calls in, not " + port);
        }
        if (!(min <= max)) {
            throw new IllegalArgumentException("setting '" + name + "': the least value is above the highest");
        }
        HexFormat.of().parseHex(prefix);
        Bytes.requireOrder("setting '" + name + "'", order);
    }

    /**
     * The payload that sets a value.
     *
     * @throws IllegalArgumentException if the value is out of range, in words
     */
    public byte[] encode(double value) {
        if (!(value >= min && value <= max)) {
            throw new IllegalArgumentException(String.format(
                            Locale.ROOT, "%s is %s to %s %s, not %s", title, plain(min), plain(max), unit, plain(value))
                    .strip());
        }
        double number = scale == null ? value : value / scale;
        byte[] bytes = type.bytesOf(number, Bytes.order(order));
        byte[] start = HexFormat.of().parseHex(prefix);
        return ByteBuffer.allocate(start.length + bytes.length)
                .put(start)
                .put(bytes)
                .array();
    }

    /** The channel by which a device that calls in tells what it has taken over. */
    public String reportingChannel() {
        return reportedBy == null ? name : reportedBy;
    }

    /** "Report interval = 30 s". */
    public String inWords(double value) {
        return (title + " = " + plain(value) + " " + unit).strip();
    }

    private static String plain(double value) {
        return value == Math.rint(value) && Math.abs(value) < 1e15
                ? Long.toString((long) value)
                : Double.toString(value);
    }
}
