package org.openpasture.api.fleet;

import java.time.Instant;
import java.util.List;

/**
 * A gateway with what it hears.
 *
 * @param hours the last 24, the oldest first
 * @param channels of the last hour
 * @param dutyUsedPercent of its ration of air, in the last hour
 * @param onlyHere names of devices that no other gateway hears
 * @param hasToken whether its station has to give a token
 */
public record GatewayPageView(
        GatewayView gateway,
        List<Hour> hours,
        List<ChannelLoad> channels,
        double dutyUsedPercent,
        List<DeviceHeard> devices,
        List<String> onlyHere,
        boolean hasToken) {
    /** Frames in an hour. */
    public record Hour(Instant start, long frames, double meanRssiDbm, double meanSnrDb) {}

    /** How much of the last hour a channel was occupied by frames that this gateway heard. */
    public record ChannelLoad(double megahertz, long frames, double percent) {}

    /** A device that it hears. */
    public record DeviceHeard(String id, String name, String state) {}
}
