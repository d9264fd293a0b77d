package org.openpasture.core.vibration;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A pattern that was found, with what it rests on.
 *
 * @param bearing the name of the bearing, empty where it is about the shaft
 * @param lines in the velocity spectrum, or for bearings in that of the envelope
 */
public record Finding(Pattern pattern, String bearing, List<Line> lines) {
    /** Of the RMS of all that vibrates: a smaller line is not worth a word. */
    private static final double WORTH_A_WORD = 0.1;

    /**
     * Every machine turns with some unbalance: below the lowest boundary from zone B to C, mm/s (ISO 10816-1, annex B,
     * class I), there is nothing to explain.
     */
    private static final double QUIET = 1.8;

    private static final double NEARLY_ALL = 0.8;
    private static final double STRONG_SECOND = 0.7;
    private static final int HARMONICS = 8;
    private static final int MANY = 4;
    private static final double OF_THE_FIRST = 0.15;
    private static final double OFF = 0.015;

    public Finding {
        lines = List.copyOf(lines);
    }

    /**
     * Looks for patterns of the shaft; a machine that runs quietly has none.
     *
     * @param velocity a velocity spectrum
     * @param turnsPerSecond of the machine
     */
    public static List<Finding> ofShaft(Spectrum velocity, double turnsPerSecond) {
        double all = velocity.rmsWithin(new Band(turnsPerSecond / 2, velocity.highestHz()));
        if (all < QUIET) {
            return List.of();
        }
        List<Line> multiples = new ArrayList<>();
        for (int i = 1; i <= HARMONICS; i++) {
            velocity.lineAt(i * turnsPerSecond, i * turnsPerSecond * OFF).ifPresent(multiples::add);
        }
        Optional<Line> first = at(multiples, turnsPerSecond);
        Optional<Line> second = at(multiples, 2 * turnsPerSecond);
        double one = first.map(Line::rms).orElse(0.0);
        double two = second.map(Line::rms).orElse(0.0);
        List<Finding> found = new ArrayList<>();
        List<Line> strong = multiples.stream()
                .filter(line -> line.rms() >= Math.max(OF_THE_FIRST * one, WORTH_A_WORD * all))
                .toList();
        if (strong.size() > MANY) {
            found.add(new Finding(Pattern.LOOSENESS, "", strong));
        } else if (second.isPresent() && two >= STRONG_SECOND * one && two >= WORTH_A_WORD * all) {
            List<Line> both = new ArrayList<>();
            first.ifPresent(both::add);
            both.add(second.get());
            found.add(new Finding(Pattern.MISALIGNMENT, "", both));
        } else if (first.isPresent() && one >= NEARLY_ALL * all) {
            found.add(new Finding(Pattern.UNBALANCE, "", List.of(first.get())));
        }
        return found;
    }

    private static Optional<Line> at(List<Line> lines, double hz) {
        return lines.stream().filter(line -> Math.abs(line.hz() / hz - 1) < 0.1).findFirst();
    }

    /**
     * Looks for a damaged part of a bearing: its line, and at least one multiple of it, stand out of the envelope.
     *
     * @param envelope the spectrum of an envelope
     */
    public static List<Finding> ofBearing(Spectrum envelope, Bearing bearing, double turnsPerSecond) {
        List<Finding> found = new ArrayList<>();
        for (Map.Entry<Bearing.Part, Double> part :
                bearing.frequencies(turnsPerSecond).entrySet()) {
            List<Line> lines = new ArrayList<>();
            for (int i = 1; i <= 3; i++) {
                double hz = i * part.getValue();
                if (!isMultiple(hz, turnsPerSecond)) {
                    envelope.lineAt(hz, hz * OFF).ifPresent(lines::add);
                }
            }
            if (lines.size() >= 2) {
                found.add(new Finding(Pattern.of(part.getKey()), bearing.name(), lines));
            }
        }
        return found;
    }

    /** What the shaft itself explains is no sign of a bearing. */
    private static boolean isMultiple(double hz, double turnsPerSecond) {
        double order = hz / turnsPerSecond;
        return Math.rint(order) >= 1 && Math.abs(order - Math.rint(order)) < OFF;
    }
}
