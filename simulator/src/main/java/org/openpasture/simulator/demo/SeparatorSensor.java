package org.openpasture.simulator.demo;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.Locale;
import java.util.Random;

/**
 * What the separator's vibration sensor sends: a third of a second of acceleration of two directions as packed samples,
 * its temperature and its own verdict. The bowl turns 78 times a second; the outer ring of its bearing has been wearing
 * for six weeks.
 */
final class SeparatorSensor {
    static final double RPM = 4_680;
    static final int BALLS = 9;
    static final double BALL_MM = 12;
    static final double PITCH_MM = 60;
    static final Duration WORN_FOR = Duration.ofDays(42);

    private static final int SAMPLES = 2_048;
    private static final int RATE_HZ = 6_400;
    private static final double TURNS = RPM / 60;
    private static final double STRIKES = BALLS / 2.0 * TURNS * (1 - BALL_MM / PITCH_MM);
    private static final double RINGS_AT_HZ = 2_150;
    private static final double DIES_AWAY = 700;
    /** A count of the packed samples, m/s². */
    private static final double COUNT = 0.005;

    private final DemoWorld world;
    private final Instant start;

    SeparatorSensor(DemoWorld world, Instant start) {
        this.world = world;
        this.start = start;
    }

    /** A message as it is published. */
    String message(Instant at) {
        boolean unbalanced = world.isSeparatorUnbalanced(at);
        double turning = unbalanced ? 6.2 : 2.4;
        Random random = new Random(at.getEpochSecond());
        return String.format(
                Locale.ROOT,
                "{\"at\":\"%s\",\"rate\":%d,\"radial\":\"%s\",\"axial\":\"%s\",\"bearing\":%.1f%s}",
                at,
                RATE_HZ,
                packed(turning, 0.6, 3 * wear(at), random),
                packed(1.1, 0.2, 0.8 * wear(at), random),
                52 + world.airTemperature(at) / 4,
                at.isBefore(start) ? "" : ",\"trip\":" + (unbalanced ? 1 : 0));
    }

    /** From 0 when the bearing was good to 1 now, slowly at first. */
    private double wear(Instant at) {
        double share = 1 - (double) Duration.between(at, start).toMillis() / WORN_FOR.toMillis();
        return Math.pow(Math.clamp(share, 0, 1), 3);
    }

    /**
     * Samples as little-endian 16-bit counts in Base64.
     *
     * @param first amplitude of the velocity at the running speed, mm/s
     * @param second at twice of it
     * @param blow height of the bearing's blows, m/s²
     */
    private static String packed(double first, double second, double blow, Random random) {
        ByteBuffer bytes = ByteBuffer.allocate(2 * SAMPLES).order(ByteOrder.LITTLE_ENDIAN);
        double turned = random.nextDouble();
        for (int i = 0; i < SAMPLES; i++) {
            double t = (double) i / RATE_HZ + turned;
            double sinceBlow = t % (1 / STRIKES);
            double acceleration = sine(first, TURNS, t)
                    + sine(second, 2 * TURNS, t)
                    + blow * Math.exp(-DIES_AWAY * sinceBlow) * Math.sin(2 * Math.PI * RINGS_AT_HZ * sinceBlow)
                    + 0.12 * random.nextGaussian();
            bytes.putShort((short) Math.rint(acceleration / COUNT));
        }
        return Base64.getEncoder().encodeToString(bytes.array());
    }

    /** Acceleration in m/s² of a velocity in mm/s. */
    private static double sine(double velocity, double hz, double t) {
        return velocity / 1_000 * 2 * Math.PI * hz * Math.cos(2 * Math.PI * hz * t);
    }
}
