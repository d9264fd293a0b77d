package org.openpasture.simulator.demo;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.Optional;
import java.util.Random;
import org.jspecify.annotations.Nullable;

/**
 * The physics of the made-up creamery: what is true at a moment, the same whenever it is asked. Before the start of the
 * demo it is history; after it, the whey pump's coupling works loose.
 */
final class DemoWorld {
    static final ZoneId ZONE = ZoneId.of("Europe/London");
    /** The pump's last repair, before and after which its history differs. */
    private static final Duration REPAIRED_BEFORE_START = Duration.ofDays(21);
    /** After the start of the demo: the coupling begins to work loose, and is repaired. */
    private static final double LOOSE_FROM = 40;

    private static final double LOOSE_FULLY = 130;
    private static final double REPAIRED = 420;
    private static final double DOOR_OPENED = 600;
    private static final double DOOR_SHUT = 1_020;

    private final Instant start;
    private final double pace;

    private volatile Instant played = Instant.MAX;
    private volatile @Nullable Instant fanSince;

    /** @param pace how many times faster than the clock the story goes that begins with the demo */
    DemoWorld(Instant start, double pace) {
        this.start = start;
        this.pace = pace;
    }

    /** The story begins, however long it took to register everything and to bring in the history. */
    void play(Instant from) {
        played = from;
    }

    /** How far the story is, in seconds of its own; below zero before it begins. */
    private double storySeconds(Instant time) {
        return time.isBefore(played) ? -1 : Duration.between(played, time).toMillis() / 1000.0 * pace;
    }

    /** Vibration of the whey pump in mm/s RMS. */
    double pump(String direction, Instant time) {
        double load = 0.12 * Math.sin(hour(time) / 24 * 2 * Math.PI);
        double worn = worn(time);
        return switch (direction) {
            case "axial" -> 2.1 + load + 2.7 * worn + 6.6 * loose(time) + noise("axial", time, 0.07);
            case "horizontal" -> 3.4 + load + 0.6 * worn + 0.5 * loose(time) + noise("horizontal", time, 0.08);
            default -> 2.7 + load + 0.5 * worn + 0.4 * loose(time) + noise("vertical", time, 0.07);
        };
    }

    double pumpTemperature(Instant time) {
        return 46
                + 3 * Math.sin((hour(time) - 9) / 24 * 2 * Math.PI)
                + 4 * worn(time)
                + 9 * loose(time)
                + noise("pump-t", time, 0.2);
    }

    /** 0 to 1: slow wear up to the repair three weeks ago. */
    private double worn(Instant time) {
        double days = Duration.between(time, start.minus(REPAIRED_BEFORE_START)).toMinutes() / 1440.0;
        return days < 0 ? 0 : Math.exp(-days / 11);
    }

    /** 0 to 1: the coupling during the demo. */
    private double loose(Instant time) {
        double seconds = storySeconds(time);
        return seconds < LOOSE_FROM || seconds > REPAIRED
                ? 0
                : Math.min(1, (seconds - LOOSE_FROM) / (LOOSE_FULLY - LOOSE_FROM));
    }

    /** Level of a silo in m: filled in the morning and evening, drawn off in between. */
    double siloLevel(int silo, Instant time) {
        double hour = (hour(time) + (silo - 1) * 5) % 24;
        double filled = hour < 6
                ? 2.2 + hour * 0.7
                : hour < 14
                        ? 6.4 - (hour - 6) * 0.45
                        : hour < 19 ? 2.8 + (hour - 14) * 0.75 : 6.55 - (hour - 19) * 0.85;
        return Math.max(0.2, filled + noise("silo" + silo, time, 0.02));
    }

    double siloTemperature(int silo, Instant time) {
        double hour = (hour(time) + (silo - 1) * 5) % 24;
        double fresh = hour < 6 || hour >= 14 && hour < 19 ? 1.4 : 0;
        return 4.2 + silo * 0.2 + fresh + noise("silo-t" + silo, time, 0.1);
    }

    double cellarTemperature(int cellar, Instant time) {
        return 11.7
                + 0.7 * (cellar == 1 ? 1 : cellar == 2 ? 0.6 : 0.2)
                + 0.5 * Math.sin((hour(time) - 10) / 24 * 2 * Math.PI)
                + 3.2 * drift(cellar, time)
                + noise("cellar-t" + cellar, time, 0.06);
    }

    double cellarHumidity(int cellar, Instant time) {
        return 90.5
                + 1.8 * Math.sin((hour(time) - 3) / 24 * 2 * Math.PI)
                - 13 * drift(cellar, time)
                + noise("cellar-h" + cellar, time, 0.4);
    }

    double cellarCarbonDioxide(int cellar, Instant time) {
        return (1150 + 420 * Math.max(0, Math.sin((hour(time) - 7) / 12 * Math.PI))) * (1 - 0.5 * drift(cellar, time))
                + noise("cellar-c" + cellar, time, 25);
    }

    double cellarAmmonia(int cellar, Instant time) {
        return Math.max(
                0,
                5.5
                        - cellar
                        + 1
                        + 1.5 * Math.sin((hour(time) - 5) / 24 * 2 * Math.PI)
                        + noise("cellar-n" + cellar, time, 0.4));
    }

    /** The door of the second cellar is left open for seven minutes, from the tenth minute on. */
    boolean isCellarDoorOpen(Instant time) {
        double seconds = storySeconds(time);
        return seconds >= DOOR_OPENED && seconds < DOOR_SHUT;
    }

    /** Somebody starts or stops the fan of the second cellar. */
    void setCellarFan(boolean runs, Instant at) {
        fanSince = runs ? Optional.ofNullable(fanSince).orElse(at) : null;
    }

    /** 0 to 1: how far the second cellar has drifted since its door was opened; the fan brings it back sooner. */
    private double drift(int cellar, Instant time) {
        double seconds = storySeconds(time);
        if (cellar != 2 || seconds < DOOR_OPENED) {
            return 0;
        }
        double open = 1 - Math.exp(-(Math.min(seconds, DOOR_SHUT) - DOOR_OPENED) / 150);
        Instant fan = fanSince;
        double fanned = fan == null ? 0 : Math.max(0, storySeconds(time) - storySeconds(fan));
        return open * Math.exp(-Math.max(0, seconds - DOOR_SHUT) / 900 - fanned / 200);
    }

    /** Surface of the whey tank in m, emptied once a day, and below it the boundary to the cream. */
    double wheySurface(Instant time) {
        return Math.max(0.6, 0.8 + 3.1 * ((hour(time) + 19) % 24) / 24) + noise("whey", time, 0.01);
    }

    double wheyBoundary(Instant time) {
        return wheySurface(time) * 0.88 - 0.05 + noise("cream", time, 0.01);
    }

    /** Vibration of the ice-water compressor in mm/s RMS; higher by day, when it works harder. */
    double compressor(String direction, Instant time) {
        double day = isDay(time) ? 0.5 : 0;
        return switch (direction) {
            case "axial" -> 1.2 + 0.4 * day + noise("ice-a", time, 0.05);
            case "horizontal" -> 2.0 + day + noise("ice-h", time, 0.07);
            default -> 1.7 + 0.7 * day + noise("ice-v", time, 0.06);
        };
    }

    double compressorDischarge(Instant time) {
        return 74 + (isDay(time) ? 9 : 0) + noise("ice-t", time, 0.6);
    }

    double oilPressure(Instant time) {
        return 3.4 - (isDay(time) ? 0.2 : 0) + noise("oil", time, 0.03);
    }

    /** Carbon monoxide in the boiler room; a little while the burner runs. */
    double boilerCarbonMonoxide(Instant time) {
        return Math.max(0, 1.2 + (time.getEpochSecond() / 60 % 12 < 5 ? 2.4 : 0) + noise("boiler", time, 0.3));
    }

    private static boolean isDay(Instant time) {
        return hour(time) > 6 && hour(time) < 19;
    }

    double airTemperature(Instant time) {
        return 7.5
                + 3.2 * Math.sin((hour(time) - 9) / 24 * 2 * Math.PI)
                + days(time, 6.3) * 1.8
                + noise("air", time, 0.1);
    }

    double airPressure(Instant time) {
        return 1008 + 9 * days(time, 5.1) + noise("air-p", time, 0.1);
    }

    double wind(Instant time) {
        return Math.max(0, 4.5 + 2.5 * days(time, 2.7) + noise("wind", time, 0.9));
    }

    /** Rain since midnight, on every other day. */
    double rainToday(Instant time) {
        return time.atZone(ZONE).getDayOfYear() % 2 == 0 ? 0 : Math.round(Math.max(0, hour(time) - 5) * 4) / 10.0;
    }

    /** In a stack of hay; the second was brought in too damp and warms up. */
    double hayTemperature(int stack, Instant time) {
        double damp =
                stack == 1 ? 19 / (1 + Math.exp(-(Duration.between(start, time).toMinutes() / 1440.0 + 12) / 5)) : 0;
        return 16
                + stack
                + damp
                + 0.4 * Math.sin((hour(time) - 12) / 24 * 2 * Math.PI)
                + noise("hay" + stack, time, 0.05);
    }

    double barnTemperature(Instant time) {
        return 11 + 0.55 * airTemperature(time) + noise("barn", time, 0.08);
    }

    double barnHumidity(Instant time) {
        return Math.clamp(74 - 6 * Math.sin((hour(time) - 9) / 24 * 2 * Math.PI) + noise("barn-h", time, 0.6), 30, 100);
    }

    /** Swings while its mean rises towards the morning, before the barn is mucked out; more ventilation thins it. */
    double barnAmmonia(Instant time, double ventilationPercent) {
        double hour = hour(time);
        double since = hour < 9 ? hour + 15 : hour - 9;
        return Math.max(
                0.5,
                (6 + 0.6 * since + 4 * Math.sin(time.getEpochSecond() / 140.0)) * 35 / Math.max(10, ventilationPercent)
                        + noise("barn-n", time, 0.5));
    }

    double coldStore(Instant time) {
        return -21.5
                + 0.8 * Math.sin(time.getEpochSecond() / 1_900.0)
                + (isColdStoreOpen(time) ? 2.2 : 0)
                + noise("cold", time, 0.1);
    }

    boolean isColdStoreOpen(Instant time) {
        double hour = hour(time);
        return hour > 6 && hour < 16 && time.getEpochSecond() / 60 % 20 < 3;
    }

    /** The separator's bowl is out of balance for two minutes, from the fifth minute on. */
    boolean isSeparatorUnbalanced(Instant time) {
        double seconds = storySeconds(time);
        return seconds >= 300 && seconds < 420;
    }

    /** What the creamery takes from the mains, in kW. */
    double plantPower(Instant time) {
        double hour = hour(time);
        return 38
                + (hour > 5 && hour < 18 ? 64 : 0)
                + 12 * Math.max(0, Math.sin((hour - 8) / 24 * 2 * Math.PI))
                + noise("power", time, 2.5);
    }

    /** Energy since the meter was set up, in kWh. */
    double plantEnergy(Instant time) {
        return 412_000 + Duration.between(start, time).toSeconds() / 3_600.0 * 74;
    }

    double mainsVoltage(Instant time) {
        return 231 + 2.5 * days(time, 0.7) + noise("volt", time, 0.3);
    }

    double mainsFrequency(Instant time) {
        return 50 + noise("hertz", time, 0.012);
    }

    /** Goes up and down within so many days. */
    static double days(Instant time, double period) {
        return Math.sin(time.getEpochSecond() / 86_400.0 / period * 2 * Math.PI);
    }

    static double hour(Instant time) {
        ZonedDateTime local = time.atZone(ZONE);
        return local.getHour() + local.getMinute() / 60.0 + local.getSecond() / 3600.0;
    }

    /** The same for the same name and moment. */
    static double noise(String name, Instant time, double sigma) {
        return new Random(name.hashCode() * 31L + time.getEpochSecond() * 7919).nextGaussian() * sigma;
    }
}
