package org.openpasture.core.layout;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.bacnet.ObjectId;

/**
 * The object of a building controller whose present value is one channel: {@code value * scale + offset}.
 *
 * @param scale null for 1
 * @param offset null for 0
 * @param every seconds between two rounds of this object; null for the device's own period
 * @param tell whether the controller is asked to tell of changes by itself (change of value); null for no
 * @param log the trend log in which the controller keeps it, from which gaps are filled; null for none
 * @param write whether people may set it from here; null for no
 * @param priority with which it is set, 1 to 16; null for 8, which the standard gives to a person's hand
 */
@JsonIgnoreProperties({"told", "settable"})
public record ObjectField(
        String channel,
        ObjectId object,
        @Nullable Double scale,
        @Nullable Double offset,
        @Nullable Integer every,
        @Nullable Boolean tell,
        @Nullable ObjectId log,
        @Nullable Boolean write,
        @Nullable Integer priority)
        implements AskedField {
    private static final int MANUAL_OPERATOR = 8;

    public ObjectField {
        if (object == null) {
            throw new IllegalArgumentException(
                    "field '" + channel + "': its object is missing, such as analog-input:3");
        }
        if (priority != null && (priority < 1 || priority > 16)) {
            throw new IllegalArgumentException("field '" + channel + "': a priority is 1 to 16, not " + priority);
        }
        AskedLayout.requirePeriod(channel, every);
    }

    /** One that is only read. */
    public static ObjectField of(String channel, ObjectId object) {
        return new ObjectField(channel, object, null, null, null, null, null, null, null);
    }

    /** Whether the controller is asked to tell of changes. */
    public boolean isTold() {
        return Boolean.TRUE.equals(tell);
    }

    /** The priority that it is set with. */
    public int effectivePriority() {
        return priority == null ? MANUAL_OPERATOR : priority;
    }
}
