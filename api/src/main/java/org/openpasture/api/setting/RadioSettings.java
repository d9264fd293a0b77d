package org.openpasture.api.setting;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;

/**
 * The band of the radio network, and how devices use it.
 *
 * @param region "eu868", "us915", "au915", "as923-1" or "in865"
 * @param subBand of eight channels, from 1, in regions that have them; 0 for gateways that hear all, and elsewhere
 * @param rx1DelaySeconds from the end of an uplink to the first window, 1 to 15; null for 1
 * @param rx1Offset by how many steps the data rate of the first window is lowered; null for 0
 * @param rx2Mhz frequency of the second window; null for the region's
 * @param rx2DataRate of the second window, "SF9BW125"; null for the region's
 * @param uplinkDwellTime whether devices may send 400 ms at most; null for the region's rule, and where it has none
 * @param downlinkDwellTime the same for what is sent to them
 * @param dutyCycleExponent devices may send 1/2^n of the time; null for 0, no limit beyond the region's
 * @param downlinkChannels other frequencies for the first window; null for none
 */
public record RadioSettings(
        String region,
        int subBand,
        @Nullable Integer rx1DelaySeconds,
        @Nullable Integer rx1Offset,
        @Nullable Double rx2Mhz,
        @Nullable String rx2DataRate,
        @Nullable Boolean uplinkDwellTime,
        @Nullable Boolean downlinkDwellTime,
        @Nullable Integer dutyCycleExponent,
        @Nullable List<DownlinkChannel> downlinkChannels) {
    public RadioSettings {
        region = Require.text(region, "the region", 20);
    }

    /** The first window of an uplink channel on another frequency. */
    public record DownlinkChannel(double uplinkMhz, double downlinkMhz) {}

    /** A band, used as its region has it. */
    public static RadioSettings of(String region, int subBand) {
        return new RadioSettings(region, subBand, null, null, null, null, null, null, null, null);
    }
}
