package org.openpasture.core.vibration;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A pattern that was found, with what it rests on.
 *
 * @param bearing the name of the bearing, empty where it is about the shaft
 * @param lines in the velocity spectrum, or for bearings in that of the envelope
 * @param sidebands lines that stand on both sides of one of these, apart by the running speed: what is damaged turns
 *     through the load once a turn, as an inner ring does; empty where there are none
 */
public record Finding(Pattern pattern, String bearing, List<Line> lines, List<Line> sidebands) {
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
    /** Beside the strongest line of the bearing a weaker one is no sign of a second damage. */
    private static final double OF_THE_STRONGEST = 0.05;

    public Finding {
        lines = List.copyOf(lines);
        sidebands = List.copyOf(sidebands);
    }

    private static Finding ofShaft(Pattern pattern, List<Line> lines) {
        return new Finding(pattern, "", lines, List.of());
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
            found.add(ofShaft(Pattern.LOOSENESS, strong));
        } else if (second.isPresent() && two >= STRONG_SECOND * one && two >= WORTH_A_WORD * all) {
            List<Line> both = new ArrayList<>();
            first.ifPresent(both::add);
            both.add(second.get());
            found.add(ofShaft(Pattern.MISALIGNMENT, both));
        } else if (first.isPresent() && one >= NEARLY_ALL * all) {
            found.add(ofShaft(Pattern.UNBALANCE, List.of(first.get())));
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
        Map<Bearing.Part, Double> frequencies = bearing.frequencies(turnsPerSecond);
        Map<Bearing.Part, List<Line>> lines = new EnumMap<>(Bearing.Part.class);
        frequencies.forEach((part, hz) -> lines.put(part, multiples(envelope, hz, turnsPerSecond)));
        double strongest = lines.values().stream()
                .flatMap(List::stream)
                .mapToDouble(Line::rms)
                .max()
                .orElse(0);
        List<Finding> found = new ArrayList<>();
        frequencies.forEach((part, hz) -> {
            List<Line> strong = lines.getOrDefault(part, List.of()).stream()
                    .filter(line -> line.rms() >= OF_THE_STRONGEST * strongest)
                    .toList();
            if (strong.size() >= 2) {
                found.add(
                        new Finding(Pattern.of(part), bearing.name(), strong, sidebands(envelope, hz, turnsPerSecond)));
            }
        });
        return found;
    }

    private static List<Line> multiples(Spectrum envelope, double hz, double turnsPerSecond) {
        List<Line> lines = new ArrayList<>();
        for (int i = 1; i <= 3; i++) {
            if (!isMultiple(i * hz, turnsPerSecond)) {
                envelope.lineAt(i * hz, i * hz * OFF).ifPresent(lines::add);
            }
        }
        return lines;
    }

    /** On both sides of the line or of its double, or nothing: one alone is no pair. */
    private static List<Line> sidebands(Spectrum envelope, double hz, double turnsPerSecond) {
        List<Line> found = new ArrayList<>();
        for (int i = 1; i <= 2; i++) {
            double middle = i * hz;
            if (middle <= turnsPerSecond || isMultiple(middle, turnsPerSecond)) {
                continue;
            }
            double apart = turnsPerSecond * OFF;
            Optional<Line> below = envelope.lineAt(middle - turnsPerSecond, apart);
            Optional<Line> above = envelope.lineAt(middle + turnsPerSecond, apart);
            if (below.isPresent() && above.isPresent()) {
                found.addAll(List.of(below.get(), above.get()));
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
