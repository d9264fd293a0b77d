package org.openpasture.api.radio;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What network and device have agreed on about the radio.
 *
 * @param nextDown counter of the next downlink
 * @param dataRate that the device was told, "SF9BW125"; null while it chooses itself
 * @param txPowerDbm that it may radiate
 * @param repetitions how often it sends each uplink
 * @param extraChannelsMhz channels beyond the region's own
 * @param subBandChosen whether it knows which channels to use; null where the region has no sub-bands
 * @param batteryWords what it said of its battery; null while it said nothing
 * @param heardMarginDb how well it hears; null while it said nothing
 * @param refused what it said no to; null if nothing
 * @param asked MAC commands that wait for an answer, by name
 * @param bestSnrDb of the newest uplinks
 * @param lostPercent of the newest uplinks
 * @param waiting commands that wait to be sent
 * @param alwaysListens whether it can be reached at any time
 */
public record RadioStateView(
        String region,
        String devAddr,
        long lastUp,
        long nextDown,
        @Nullable String dataRate,
        int txPowerDbm,
        int repetitions,
        int rx1DelaySeconds,
        double rx2Mhz,
        String rx2DataRate,
        List<Double> extraChannelsMhz,
        @Nullable Boolean subBandChosen,
        @Nullable String batteryWords,
        @Nullable Integer heardMarginDb,
        @Nullable Instant statusAt,
        @Nullable String refused,
        List<String> asked,
        @Nullable Double bestSnrDb,
        @Nullable Double lostPercent,
        int waiting,
        boolean alwaysListens) {}
