package org.openpasture.core.lorawan;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.json.JsonMapper;

/**
 * The regional parameters of a band, read from a data file (LoRa Alliance RP002-1.0.4).
 *
 * <p>There are two kinds of plan. In a dynamic one a few channels are fixed and the network hands out more, and a
 * downlink goes back on the uplink's frequency. In a fixed one all channels are known by number, gateways hear eight of
 * them with a ninth beside (a sub-band), and downlinks have channels of their own.
 *
 * @param uplinks runs of channels, in the order of their numbers
 * @param downlinks the channels of the first window; null for a dynamic plan
 * @param extraChannelsHz channels handed to a joining device beside the default ones; dynamic plans only
 * @param rx1Offsets by uplink data rate: the data rate of the first window for each RX1DROffset. Where the downlink
 *     dwell time is limited by default (AS923) it is the table for that
 * @param maxEirpDbm what a device may radiate; TXPower n is 2 n dB less
 * @param powerSteps how many values TXPower has
 * @param adrDataRates the lowest and highest data rate that adaptive data rate gives
 * @param maxPowerDbm of a downlink where no sub-band says otherwise
 * @param uplinkDwellTime whether a device may send 400 ms at most
 * @param subBands where transmissions are rationed, by frequency
 */
public record Region(
        String id,
        String title,
        List<Channels> uplinks,
        @Nullable Channels downlinks,
        List<Long> extraChannelsHz,
        List<DataRate> dataRates,
        Map<Integer, List<Integer>> rx1Offsets,
        long rx2FrequencyHz,
        int rx2DataRate,
        int maxEirpDbm,
        int powerSteps,
        List<Integer> adrDataRates,
        int maxPowerDbm,
        boolean uplinkDwellTime,
        List<SubBand> subBands) {
    /** The regions that ship. */
    public static final List<String> SHIPPED = List.of("eu868", "us915", "au915", "as923-1", "in865");
    /** JOIN_ACCEPT_DELAY1, the same in all regions; the second window is a second later. */
    public static final int JOIN_DELAY_SECONDS = 5;
    /** RECEIVE_DELAY1 as devices have it before they are told another; the second window is a second later. */
    public static final int RX1_DELAY_SECONDS = 1;

    private static final int CHANNELS_IN_SUB_BAND = 8;

    public Region {
        uplinks = List.copyOf(uplinks);
        extraChannelsHz = List.copyOf(extraChannelsHz);
        dataRates = List.copyOf(dataRates);
        rx1Offsets = Map.copyOf(rx1Offsets);
        subBands = List.copyOf(subBands);
    }

    /** Channels at even steps. */
    public record Channels(long firstHz, long stepHz, int count, int lowestDataRate, int highestDataRate) {
        long hz(int index) {
            return firstHz + stepHz * index;
        }
    }

    /**
     * A stretch of the band with a ration.
     *
     * @param dutyCycle share of an hour in which one transmitter may send, such as 0.01
     */
    public record SubBand(long fromHz, long untilHz, double dutyCycle, int maxPowerDbm) {}

    /**
     * Reads a region that ships.
     *
     * @param id one of {@link #SHIPPED}
     * @throws IllegalArgumentException if there is none of that name
     */
    public static Region shipped(String id) {
        if (!SHIPPED.contains(id)) {
            throw new IllegalArgumentException(
                    "no regional parameters for '" + id + "'; there are " + String.join(", ", SHIPPED));
        }
        try (InputStream in = Region.class.getResourceAsStream("region-" + id + ".json")) {
            return JsonMapper.builder().build().readValue(in, Region.class);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Whether all channels are known by number. */
    public boolean isFixed() {
        return downlinks != null;
    }

    /** The data rate of a number. */
    public Optional<DataRate> dataRate(int index) {
        return dataRates.stream().filter(rate -> rate.index() == index).findFirst();
    }

    /** The data rate of an uplink with a code such as "SF9BW125". */
    public Optional<DataRate> dataRate(String code) {
        return dataRates.stream()
                .filter(rate -> rate.isForUplinks() && rate.code().equals(code))
                .findFirst();
    }

    /** The frequencies of all channels that every device has, in the order of their numbers. */
    public List<Long> channelsHz() {
        List<Long> all = new ArrayList<>();
        uplinks.forEach(run -> {
            for (int i = 0; i < run.count(); i++) {
                all.add(run.hz(i));
            }
        });
        return all;
    }

    /** The number of a channel; empty if devices have no such channel by themselves. */
    public Optional<Integer> channel(long frequencyHz) {
        int at = channelsHz().indexOf(frequencyHz);
        return at < 0 ? Optional.empty() : Optional.of(at);
    }

    /** How many sub-bands a fixed plan has; 0 for a dynamic one. */
    public int subBandCount() {
        return isFixed() ? uplinks.getFirst().count() / CHANNELS_IN_SUB_BAND : 0;
    }

    /**
     * The sub-band that a channel belongs to, from 1; 0 where there are none. The wide channels are counted with the
     * eight narrow ones that surround them.
     */
    public int subBandOf(long frequencyHz) {
        int narrow = uplinks.getFirst().count();
        return isFixed()
                ? channel(frequencyHz)
                        .map(number -> number < narrow ? number / CHANNELS_IN_SUB_BAND + 1 : number - narrow + 1)
                        .orElse(0)
                : 0;
    }

    /** The channels of a sub-band: eight narrow ones and the wide one. */
    public List<Integer> channelsOfSubBand(int subBand) {
        List<Integer> channels = new ArrayList<>();
        for (int i = 0; i < CHANNELS_IN_SUB_BAND; i++) {
            channels.add((subBand - 1) * CHANNELS_IN_SUB_BAND + i);
        }
        channels.add(uplinks.getFirst().count() + subBand - 1);
        return channels;
    }

    /**
     * Whether a frequency lies within the band, with the steps of half a channel around the channels that devices know.
     */
    boolean holds(long frequencyHz) {
        if (!subBands.isEmpty()) {
            return subBand(frequencyHz).isPresent();
        }
        long lowest = Math.min(channelsHz().getFirst(), downlinks == null ? Long.MAX_VALUE : downlinks.hz(0));
        long highest = Math.max(
                channelsHz().stream().mapToLong(Long::longValue).max().orElse(0),
                downlinks == null ? 0 : downlinks.hz(downlinks.count() - 1));
        return frequencyHz >= lowest - 500_000 && frequencyHz <= highest + 500_000;
    }

    /** The highest offset by which the data rate of the first window can be lowered. */
    public int highestRx1Offset() {
        return rx1Offsets.values().stream()
                .mapToInt(row -> row.size() - 1)
                .min()
                .orElse(0);
    }

    /** Whether the region has a limit of the dwell time that can be told to devices (TxParamSetup). */
    public boolean knowsDwellTime() {
        return dataRates.stream().anyMatch(rate -> rate.maxPayloadInDwellTime() != null);
    }

    /**
     * The data rate of the first receive window. The table of a dynamic plan with a limit of the dwell time holds while
     * the downlink is limited; without the limit it is the uplink's data rate less the offset, from 0 to 5, where the
     * offsets 6 and 7 mean one and two steps more (RP002, AS923).
     */
    public DataRate rx1(DataRate uplink, int offset, boolean downlinkDwellTime) {
        if (!isFixed() && knowsDwellTime() && !downlinkDwellTime) {
            int less = offset <= 5 ? offset : 5 - offset;
            return dataRate(Math.clamp(uplink.index() - less, 0, 5)).orElseThrow();
        }
        List<Integer> row = rx1Offsets.getOrDefault(uplink.index(), List.of());
        int index = row.isEmpty() ? rx2DataRate : row.get(Math.min(offset, row.size() - 1));
        return dataRate(index).orElseThrow();
    }

    /**
     * The frequency of the first receive window: the uplink's, or in a fixed plan the downlink channel that belongs to
     * it.
     */
    public long rx1FrequencyHz(long uplinkHz) {
        return downlinks == null ? uplinkHz : downlinks.hz(channel(uplinkHz).orElse(0) % downlinks.count());
    }

    public DataRate rx2() {
        return dataRate(rx2DataRate).orElseThrow();
    }

    /** The sub-band of a frequency, if transmissions there are rationed. */
    public Optional<SubBand> subBand(long frequencyHz) {
        return subBands.stream()
                .filter(band -> frequencyHz >= band.fromHz() && frequencyHz < band.untilHz())
                .findFirst();
    }

    /** With how much a gateway may send at a frequency, in dBm. */
    public int powerDbm(long frequencyHz) {
        return subBand(frequencyHz).map(SubBand::maxPowerDbm).orElse(maxPowerDbm);
    }

    /** What TXPower n means in dBm. */
    public int eirpDbm(int txPower) {
        return maxEirpDbm - 2 * txPower;
    }

    /** The index of radiated power by which TxParamSetup tells the region's most (LoRaWAN L2 1.0.4, 5.8). */
    int eirpIndex() {
        int[] dbm = {8, 10, 12, 13, 14, 16, 18, 20, 21, 24, 26, 27, 29, 30, 33, 36};
        int index = 0;
        for (int i = 0; i < dbm.length; i++) {
            index = dbm[i] <= maxEirpDbm ? i : index;
        }
        return index;
    }

    int lowestAdrDataRate() {
        return adrDataRates.getFirst();
    }

    int highestAdrDataRate() {
        return adrDataRates.getLast();
    }
}
