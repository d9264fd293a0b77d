package org.openpasture.core.lorawan;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What network and device have agreed on about the radio, beside the session's keys and counters; on disk when it
 * changes.
 *
 * @param link as the device was told and has accepted
 * @param windows when and where the device listens
 * @param channelsHz channels beyond the region's own that the device knows
 * @param channelsChosen whether the device knows which channels to use, where a region has sub-bands
 * @param status null while the device told nothing
 * @param asked what waits for an answer
 * @param refused what the device said no to, in words; null if nothing
 */
public record MacState(
        Link link,
        Windows windows,
        List<Long> channelsHz,
        boolean channelsChosen,
        @Nullable Status status,
        Asked asked,
        @Nullable String refused) {
    public MacState {
        channelsHz = List.copyOf(channelsHz);
    }

    /**
     * How the device sends.
     *
     * @param dataRate that it was told; -1 while it chooses itself
     * @param txPower index of the region's power steps, 0 the most
     * @param repetitions how often it sends each uplink
     */
    public record Link(int dataRate, int txPower, int repetitions) {}

    /**
     * When and where the device listens after an uplink.
     *
     * @param rx1DelaySeconds 1 to 15; the second window is a second later
     * @param rx1Offset by how much the data rate of the first window is lowered
     */
    public record Windows(int rx1DelaySeconds, int rx1Offset, long rx2FrequencyHz, int rx2DataRate) {}

    /**
     * What the device said of itself.
     *
     * @param battery 0 outside power, 1 to 254 empty to full, 255 not known
     * @param marginDb how well it hears
     */
    public record Status(int battery, int marginDb, Instant at) {}

    /**
     * Commands that wait for an answer.
     *
     * @param commands their identifiers
     * @param link what {@link MacCommand.LinkAdrReq} asked for; null if it was not asked
     * @param tries how often they were sent
     * @param statusAt when the device was last asked for its status; null before the first time
     */
    public record Asked(
            List<Integer> commands,
            @Nullable Link link,
            int tries,
            @Nullable Instant statusAt) {
        public Asked {
            commands = List.copyOf(commands);
        }
    }

    /** As a session begins: the region's own values, and what the join accept handed out. */
    public static MacState fresh(Region region, List<Long> channelsHz, boolean channelsChosen) {
        return new MacState(
                new Link(-1, 0, 1),
                new Windows(Region.RX1_DELAY_SECONDS, 0, region.rx2FrequencyHz(), region.rx2DataRate()),
                channelsHz,
                channelsChosen,
                null,
                new Asked(List.of(), null, 0, null),
                null);
    }

    MacState withLink(Link now) {
        return new MacState(now, windows, channelsHz, channelsChosen, status, asked, refused);
    }

    MacState withChannels(List<Long> nowHz, boolean nowChosen) {
        return new MacState(link, windows, nowHz, nowChosen, status, asked, refused);
    }

    MacState withStatus(Status now) {
        return new MacState(link, windows, channelsHz, channelsChosen, now, asked, refused);
    }

    MacState withAsked(Asked now) {
        return new MacState(link, windows, channelsHz, channelsChosen, status, now, refused);
    }

    MacState withRefused(@Nullable String words) {
        return new MacState(link, windows, channelsHz, channelsChosen, status, asked, words);
    }
}
