package org.openpasture.simulator.demo;

import static org.openpasture.simulator.demo.DemoWorld.days;
import static org.openpasture.simulator.demo.DemoWorld.hour;
import static org.openpasture.simulator.demo.DemoWorld.noise;

import java.time.Duration;
import java.time.Instant;

/**
 * The physics of the farm's parlour, stores and pasture, and of the spring in the hills: what is true at a moment, the
 * same whenever it is asked.
 */
final class CountryWorld {
    /** The cows are milked from half past five and from five in the afternoon, for two hours. */
    private static final double MORNING = 5.5;

    private static final double EVENING = 17;
    private static final double MILKING_HOURS = 2;
    /** Since then the sensor at the overflow has not been heard. */
    static final Duration OVERFLOW_SILENT = Duration.ofDays(5);

    private final Instant start;

    CountryWorld(Instant start) {
        this.start = start;
    }

    /** Vibration of the parlour's vacuum pump in mm/s RMS: it stands between milkings. */
    double vacuumPump(String direction, Instant time) {
        if (!isMilking(time)) {
            return 0.12 + Math.abs(noise("vacuum-" + direction, time, 0.02));
        }
        double base = "axial".equals(direction) ? 1.0 : "horizontal".equals(direction) ? 1.6 : 1.3;
        return base + noise("vacuum-" + direction, time, 0.05);
    }

    double vacuumPumpTemperature(Instant time) {
        return isMilking(time) ? 58 + noise("vacuum-t", time, 0.5) : 21 + noise("vacuum-t", time, 0.3);
    }

    boolean isMilking(Instant time) {
        double hour = hour(time);
        return hour >= MORNING && hour < MORNING + MILKING_HOURS || hour >= EVENING && hour < EVENING + MILKING_HOURS;
    }

    /** Warm milk comes in while the cows are milked; in the evening it cools too slowly, as the condenser is dirty. */
    double bulkMilk(Instant time) {
        double hour = hour(time);
        double warm = warmth(hour - MORNING, 1.1) + warmth((hour - EVENING + 24) % 24, 2.6);
        return 3.7 + warm + noise("bulk", time, 0.05);
    }

    private static double warmth(double sinceBegun, double coolingHours) {
        if (sinceBegun < 0) {
            return 0;
        }
        double filled = Math.min(1, sinceBegun / MILKING_HOURS);
        return 6.5 * filled * Math.exp(-Math.max(0, sinceBegun - MILKING_HOURS) / coolingHours);
    }

    boolean isMilkCooled(Instant time) {
        return bulkMilk(time) > 4.6;
    }

    /** Level of the slurry store in m: it fills until it is spread, every five weeks. */
    double slurry(Instant time) {
        double weeks = weeks(time, 5);
        return 1.1 + 0.52 * weeks + noise("slurry", time, 0.01);
    }

    /** Level of the feed silo in m: eaten down within a week and filled up again. */
    double feed(Instant time) {
        return 5.6 - 4.1 * weeks(time, 1) + noise("feed", time, 0.015);
    }

    /** Weeks since the last time that something happened which happens every so many weeks. */
    private static double weeks(Instant time, int every) {
        return time.getEpochSecond() / 604_800.0 % every;
    }

    /** Level of the trough in m: the herd drinks after milking, then the float valve fills it. */
    double trough(Instant time) {
        double hour = hour(time);
        boolean drinks = hour >= 8 && hour < 9 || hour >= 19.5 && hour < 20.5;
        return 0.46 - (drinks ? 0.14 : 0) + noise("trough", time, 0.008);
    }

    /** Moisture of the soil in per cent; the rain of every other day reaches the upper layers first. */
    double soil(int centimetres, Instant time) {
        double wet = days(time, 2) * 60 / centimetres;
        double season = 2 * days(time, 40);
        return switch (centimetres) {
            case 20 -> 27 + season + wet + noise("soil20", time, 0.15);
            case 40 -> 30 + season + wet + noise("soil40", time, 0.1);
            default -> 33 + season + wet + noise("soil60", time, 0.08);
        };
    }

    double soilTemperature(Instant time) {
        return 8.4 + 1.1 * Math.sin((hour(time) - 13) / 24 * 2 * Math.PI) + days(time, 6.3);
    }

    /** Level at the spring's intake in m. */
    double intake(Instant time) {
        return 0.62 + 0.05 * days(time, 9) + noise("intake", time, 0.004);
    }

    /** Level of the reservoir in m: drawn by day, filled by night, and a little lower every day of a dry month. */
    double reservoir(Instant time) {
        double dry = Math.max(0, 60 - Duration.between(time, start).toHours() / 24.0) * 0.011;
        return 2.9 - dry - 0.25 * Math.sin((hour(time) - 8) / 24 * 2 * Math.PI) + noise("reservoir", time, 0.01);
    }

    double overflow(Instant time) {
        return Math.max(0, 0.08 + 0.04 * days(time, 9) + noise("overflow", time, 0.003));
    }

    /** Bearing vibration of the turbine in mm/s RMS; it grew slowly over the two months. */
    double turbine(String direction, Instant time) {
        double grown = Math.max(0, 60 - Duration.between(time, start).toHours() / 24.0) / 60;
        double base = "axial".equals(direction) ? 1.0 + 0.3 * grown : 1.6 + 0.9 * grown;
        return base + noise("turbine-" + direction, time, 0.05);
    }

    double turbineTemperature(Instant time) {
        return 31 + 2 * Math.sin((hour(time) - 14) / 24 * 2 * Math.PI) + noise("turbine-t", time, 0.2);
    }

    double turbineVoltage(Instant time) {
        return 229 + 3 * days(time, 1.3) + noise("turbine-v", time, 0.6);
    }

    double turbineFrequency(Instant time) {
        return 50 + 0.25 * days(time, 1.3) + noise("turbine-f", time, 0.04);
    }

    /** Voltage of the battery bank in V, between day and night, and the current into it in A. */
    double bankVoltage(Instant time) {
        return 25.4 + 0.9 * Math.sin((hour(time) - 9) / 24 * 2 * Math.PI) + noise("bank", time, 0.02);
    }

    double bankCurrent(Instant time) {
        return 6.5 * Math.sin((hour(time) - 8) / 24 * 2 * Math.PI) + noise("bank-a", time, 0.15);
    }

    /** Voltage of the cell in the sender at the intake, which is nearly used up. */
    double intakeBattery(Instant time) {
        return 3.05 + Math.max(0, Duration.between(time, start).toHours() / 24.0) * 0.004;
    }
}
