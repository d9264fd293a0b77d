package org.openpasture.core.lorawan;

import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What the owner of a radio network sets beyond its region. Devices learn it when they join, and by MAC commands.
 *
 * @param rx1DelaySeconds from the end of an uplink to the first window, 1 to 15
 * @param rx1Offset by how many steps the data rate of the first window is lowered, 0 to 7
 * @param rx2FrequencyHz of the second window; null for the region's
 * @param rx2DataRate of the second window; null for the region's
 * @param uplinkDwellTime whether devices may send 400 ms at most; null for the region's rule
 * @param downlinkDwellTime the same for what is sent to them
 * @param dutyCycleExponent devices may send 1/2^n of the time; 0 for no limit beyond the region's
 * @param downlinksHz by uplink frequency, another frequency for the first window; dynamic plans only
 */
public record NetworkSettings(
        int rx1DelaySeconds,
        int rx1Offset,
        @Nullable Long rx2FrequencyHz,
        @Nullable Integer rx2DataRate,
        @Nullable Boolean uplinkDwellTime,
        @Nullable Boolean downlinkDwellTime,
        int dutyCycleExponent,
        Map<Long, Long> downlinksHz) {
    /** As a region has it by itself. */
    public static final NetworkSettings STANDARD =
            new NetworkSettings(Region.RX1_DELAY_SECONDS, 0, null, null, null, null, 0, Map.of());

    public NetworkSettings {
        downlinksHz = Map.copyOf(downlinksHz);
        if (rx1DelaySeconds < 1 || rx1DelaySeconds > 15) {
            throw new IllegalArgumentException("The RX1 delay is 1 to 15 s, not " + rx1DelaySeconds + ".");
        }
        if (dutyCycleExponent < 0 || dutyCycleExponent > 15) {
            throw new IllegalArgumentException(
                    "The duty cycle of devices is 1/2^n with n from 0 to 15, not " + dutyCycleExponent + ".");
        }
    }

    /**
     * Checks that a region can do this.
     *
     * @throws IllegalArgumentException naming the field and what it may be
     */
    void checkAgainst(Region region) {
        int offsets = region.highestRx1Offset();
        if (rx1Offset < 0 || rx1Offset > offsets) {
            throw new IllegalArgumentException("The RX1 data rate offset is 0 to " + offsets + " in " + region.title()
                    + ", not " + rx1Offset + ".");
        }
        if (rx2DataRate != null && region.dataRate(rx2DataRate).isEmpty()) {
            throw new IllegalArgumentException(region.title() + " has no data rate " + rx2DataRate + " for RX2.");
        }
        if (rx2FrequencyHz != null && !region.holds(rx2FrequencyHz)) {
            throw new IllegalArgumentException(
                    "The RX2 frequency " + rx2FrequencyHz / 1e6 + " MHz is outside of " + region.title() + ".");
        }
        if ((uplinkDwellTime != null || downlinkDwellTime != null) && !region.knowsDwellTime()) {
            throw new IllegalArgumentException(region.title() + " has no limit of the dwell time.");
        }
        if (!downlinksHz.isEmpty() && region.isFixed()) {
            throw new IllegalArgumentException(
                    "The downlink channels of " + region.title() + " are fixed; only its RX2 can be set.");
        }
        downlinksHz.forEach((uplink, downlink) -> {
            if (!region.channelsHz().contains(uplink)
                    && !region.extraChannelsHz().contains(uplink)) {
                throw new IllegalArgumentException(
                        uplink / 1e6 + " MHz is no uplink channel of " + region.title() + ".");
            }
            if (!region.holds(downlink)) {
                throw new IllegalArgumentException(downlink / 1e6 + " MHz is outside of " + region.title() + ".");
            }
        });
    }

    /** When and where devices are to listen. */
    MacState.Windows windows(Region region) {
        return new MacState.Windows(
                rx1DelaySeconds,
                rx1Offset,
                rx2FrequencyHz == null ? region.rx2FrequencyHz() : rx2FrequencyHz,
                rx2DataRate == null ? region.rx2DataRate() : rx2DataRate);
    }

    /** The dwell times that devices are to keep; the region's own where nothing is set. */
    MacState.Dwell dwell(Region region) {
        return new MacState.Dwell(
                uplinkDwellTime == null ? region.uplinkDwellTime() : uplinkDwellTime,
                downlinkDwellTime == null ? region.uplinkDwellTime() : downlinkDwellTime);
    }
}
