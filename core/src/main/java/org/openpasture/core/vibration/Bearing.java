package org.openpasture.core.vibration;

import java.util.EnumMap;
import java.util.Map;

/**
 * A rolling bearing whose outer ring stands still, by the geometry in its data sheet.
 *
 * @param name such as "drive end"
 * @param elements how many balls or rollers, 3 to 200
 * @param elementDiameterMm of a ball or roller
 * @param pitchDiameterMm of the circle that their centres run on, greater than the element's
 * @param contactDegrees contact angle, 0 to below 90
 */
public record Bearing(
        String name, int elements, double elementDiameterMm, double pitchDiameterMm, double contactDegrees) {
    private static final int FEWEST_ELEMENTS = 3;
    private static final int MOST_ELEMENTS = 200;

    /**
     * Checks the geometry.
     *
     * @throws IllegalArgumentException in words for who entered it
     */
    public Bearing {
        if (name.isBlank()) {
            throw new IllegalArgumentException("A bearing needs a name, such as drive end.");
        }
        if (elements < FEWEST_ELEMENTS || elements > MOST_ELEMENTS) {
            throw new IllegalArgumentException("Bearing '" + name + "': the number of balls or rollers is "
                    + FEWEST_ELEMENTS + " to " + MOST_ELEMENTS + ", not " + elements + ".");
        }
        if (!(elementDiameterMm > 0) || !(pitchDiameterMm > elementDiameterMm) || !(pitchDiameterMm < 10_000)) {
            throw new IllegalArgumentException("Bearing '" + name + "': the pitch diameter (" + pitchDiameterMm
                    + " mm) must be greater than that of a ball or roller (" + elementDiameterMm
                    + " mm), and both above 0.");
        }
        if (!(contactDegrees >= 0 && contactDegrees < 90)) {
            throw new IllegalArgumentException(
                    "Bearing '" + name + "': the contact angle is 0° to below 90°, not " + contactDegrees + "°.");
        }
    }

    /** What of a bearing can be damaged, each with a frequency of its own. */
    public enum Part {
        OUTER_RING,
        INNER_RING,
        ROLLING_ELEMENT,
        CAGE
    }

    /**
     * How often each part is struck, in Hz (ISO 15243 and ISO 13373-3: BPFO, BPFI, BSF, FTF).
     *
     * @param turnsPerSecond of the inner ring
     */
    public Map<Part, Double> frequencies(double turnsPerSecond) {
        double ratio = elementDiameterMm / pitchDiameterMm * Math.cos(Math.toRadians(contactDegrees));
        Map<Part, Double> found = new EnumMap<>(Part.class);
        found.put(Part.OUTER_RING, elements / 2.0 * turnsPerSecond * (1 - ratio));
        found.put(Part.INNER_RING, elements / 2.0 * turnsPerSecond * (1 + ratio));
        found.put(
                Part.ROLLING_ELEMENT, pitchDiameterMm / (2 * elementDiameterMm) * turnsPerSecond * (1 - ratio * ratio));
        found.put(Part.CAGE, turnsPerSecond / 2 * (1 - ratio));
        return found;
    }
}
