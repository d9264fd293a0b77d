package org.openpasture.core.vibration;

import java.util.Optional;

/** The running speed of a machine, found in its spectrum. */
public final class RunningSpeed {
    /** Machines that turn more slowly or faster are told by their owner. */
    private static final Band SEARCHED = new Band(4, 250);

    private static final int HARMONICS = 4;
    /** How far a machine under load may be from the speed on its plate. */
    private static final double SLIP = 0.06;

    private RunningSpeed() {}

    /** Turns per second near a speed that is known roughly; the known one if no line stands there. */
    public static double near(Spectrum spectrum, double turnsPerSecond) {
        return spectrum.as(Measured.VELOCITY, new Band(turnsPerSecond / 2, turnsPerSecond * 2))
                .lineAt(turnsPerSecond, turnsPerSecond * SLIP)
                .map(Line::hz)
                .orElse(turnsPerSecond);
    }

    /**
     * Turns per second where nothing is known: the line that explains most together with its harmonics. Empty if no
     * line stands out.
     */
    public static Optional<Double> find(Spectrum spectrum) {
        Spectrum velocity = spectrum.as(
                Measured.VELOCITY, new Band(SEARCHED.lowHz() / 2, Math.max(SEARCHED.highHz(), spectrum.highestHz())));
        double best = 0;
        Optional<Double> found = Optional.empty();
        for (Line line : velocity.lines(12)) {
            if (!SEARCHED.holds(line.hz())) {
                continue;
            }
            double sum = line.rms();
            for (int harmonic = 2; harmonic <= HARMONICS; harmonic++) {
                sum += velocity.lineAt(line.hz() * harmonic, velocity.stepHz())
                                .map(Line::rms)
                                .orElse(0.0)
                        / harmonic;
            }
            if (sum > best) {
                best = sum;
                found = Optional.of(line.hz());
            }
        }
        return found;
    }
}
