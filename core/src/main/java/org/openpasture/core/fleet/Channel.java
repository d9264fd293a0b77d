package org.openpasture.core.fleet;

import java.util.Collections;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.calibration.Calibration;
import org.openpasture.core.quantity.Quantity;

/**
 * One value that all devices of a model report.
 *
 * @param name as in the layout
 * @param title for people; also the name that a new point gets
 * @param direction for a vibration channel, the axis it measures; null otherwise
 * @param deadBand a change of the calibrated value by less is not worth a record of its own where frames are thinned
 *     out; null for any change
 * @param calibration holds for all devices of the model unless an assignment says otherwise; null for none
 * @param verdict what it means when the device itself finds something out of bounds by it; null for a channel that
 *     measures
 * @param words what stands for its values where a point says nothing else, by the value as text: "0" is "shut"
 */
public record Channel(
        String name,
        String title,
        Quantity quantity,
        String unit,
        @Nullable String direction,
        @Nullable Calibration calibration,
        @Nullable Double deadBand,
        @Nullable EdgeVerdict verdict,
        @Nullable Map<String, String> words) {
    public Channel {
        title = title == null || title.isBlank() ? name : title;
        unit = unit == null && quantity != null ? quantity.unit() : unit;
        words = words == null ? Map.of() : Collections.unmodifiableMap(new TreeMap<>(words));
    }

    /** What stands for values; empty for nothing. */
    @Override
    public Map<String, String> words() {
        return words == null ? Map.of() : words;
    }

    /** The channel by which it is read how strongly a relay heard the device, beside what the layout reads. */
    public static final String SIGNAL = "signal";

    /** One without calibration. */
    public static Channel of(String name, String title, Quantity quantity, String unit) {
        return new Channel(name, title, quantity, unit, null, null, null, null, null);
    }
}
