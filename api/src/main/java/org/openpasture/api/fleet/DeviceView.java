package org.openpasture.api.fleet;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.calibration.Calibration;
import org.openpasture.core.lorawan.Eui64;

/**
 * A device and how it is.
 *
 * @param devEui null for a device of an inlet
 * @param address what it is known by: its EUI, or what stands in its messages
 * @param activation over-the-air, personalised, or inlet
 * @param inletId null for a LoRaWAN device
 * @param state online, silent, silent-gateway (its gateway is silent too), silent-inlet (the inlet is down or paused),
 *     silent-battery (it was nearly empty), joined (no data yet), never-heard
 * @param stateReason the same in words
 * @param problem why its newest frame was refused; null if it was not
 * @param lost frames missing between those that came, since the service started
 * @param batteryPercent by the model's kind of cells, or as the device says; null if neither is known
 * @param marginDb how far its newest frame was above what a gateway can make out
 * @param firmware as it says in a channel of that name; null if it does not
 * @param hardware likewise
 * @param configuringSince when it was first heard in its configuration mode, which drains its battery; null if it is
 *     not in it, or does not say
 * @param clockAheadSeconds by how much its clock is ahead, as the newest message shows it; null if it is not, or sends
 *     no times
 * @param clockCorrected whether the times that it sends are corrected
 */
public record DeviceView(
        String id,
        String name,
        String modelId,
        String modelName,
        String placeId,
        List<String> path,
        @Nullable Eui64 devEui,
        String address,
        String activation,
        @Nullable String inletId,
        @Nullable String inletName,
        String state,
        String stateReason,
        @Nullable Instant lastHeard,
        @Nullable Double rssiDbm,
        @Nullable Double snrDb,
        @Nullable String dataRate,
        @Nullable Long counter,
        long frames,
        long lost,
        @Nullable Double batteryVolts,
        @Nullable String problem,
        List<AssignmentView> assignments,
        List<String> gateways,
        @Nullable Double batteryPercent,
        @Nullable Double marginDb,
        @Nullable String firmware,
        @Nullable String hardware,
        @Nullable Instant configuringSince,
        @Nullable Long clockAheadSeconds,
        boolean clockCorrected) {

    /**
     * A channel and the point it feeds.
     *
     * @param calibration for this device alone; null for the model's
     */
    public record AssignmentView(
            String id,
            String channel,
            String pointId,
            String pointName,
            @Nullable Calibration calibration) {}
}
