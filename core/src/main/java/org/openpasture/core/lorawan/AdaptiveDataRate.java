package org.openpasture.core.lorawan;

/**
 * Which data rate, power and number of repetitions suit a device, by the usual recommendation: the margin of the best
 * of the last 20 uplinks above the demodulation floor, less an installation margin, is used up in steps of 3 dB, first
 * by a higher data rate, then by less power; where it is missing, power comes back. Repetitions follow the share of
 * lost frames.
 */
public final class AdaptiveDataRate {
    /** What is left for weather, leaves and doors, in dB. */
    public static final double INSTALLATION_MARGIN_DB = 10;

    private static final double STEP_DB = 3;
    /** Row by the repetitions until now (1, 2, 3), column by loss: below 5 %, 10 %, 30 %, above. */
    private static final int[][] REPETITIONS = {{1, 1, 2, 3}, {1, 2, 3, 3}, {2, 3, 3, 3}};

    private AdaptiveDataRate() {}

    /**
     * What a device can do, as far as it is known.
     *
     * @param highestDataRate that it takes
     * @param leastPower the highest index of the power steps that it takes
     */
    record Bounds(int highestDataRate, int leastPower) {
        static Bounds of(Region region) {
            return new Bounds(region.highestAdrDataRate(), Math.min(region.powerSteps() - 1, 7));
        }

        Bounds belowDataRate(int refused) {
            return new Bounds(Math.min(highestDataRate, refused - 1), leastPower);
        }

        Bounds abovePower(int refused) {
            return new Bounds(highestDataRate, Math.min(leastPower, refused - 1));
        }
    }

    /** What the device should be told; what it has if nothing should change or too little was heard. */
    static MacState.Link advise(Region region, MacState.Link now, LinkHistory history, Bounds bounds) {
        if (!history.isFull()) {
            return now;
        }
        int dataRate = history.dataRate();
        int txPower = now.txPower();
        double floor = region.dataRate(dataRate).map(DataRate::floorDb).orElse(0.0);
        int steps = (int) ((history.bestSnrDb() - floor - INSTALLATION_MARGIN_DB) / STEP_DB);
        while (steps > 0 && dataRate < bounds.highestDataRate()) {
            dataRate++;
            steps--;
        }
        while (steps > 0 && txPower < bounds.leastPower()) {
            txPower++;
            steps--;
        }
        while (steps < 0 && txPower > 0) {
            txPower--;
            steps++;
        }
        return new MacState.Link(
                Math.max(dataRate, region.lowestAdrDataRate()),
                txPower,
                repetitions(now.repetitions(), history.lost()));
    }

    private static int repetitions(int now, double lost) {
        int column = lost < 0.05 ? 0 : lost < 0.1 ? 1 : lost < 0.3 ? 2 : 3;
        return REPETITIONS[Math.clamp(now, 1, 3) - 1][column];
    }
}
