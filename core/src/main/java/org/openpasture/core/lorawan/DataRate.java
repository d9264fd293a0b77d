package org.openpasture.core.lorawan;

import org.jspecify.annotations.Nullable;

/**
 * A LoRa data rate of a region (LoRa Alliance RP002).
 *
 * @param spreadingFactor 7 to 12
 * @param bandwidthKhz 125, 250 or 500
 * @param maxPayload longest application payload in bytes without options ("N", by a repeater too)
 * @param maxPayloadInDwellTime the same where a transmission may last 400 ms at most; 0 where the data rate may not be
 *     used then, null where the region has no such limit
 * @param downlinkOnly whether only gateways use it
 */
public record DataRate(
        int index,
        int spreadingFactor,
        int bandwidthKhz,
        int maxPayload,
        @Nullable Integer maxPayloadInDwellTime,
        @Nullable Boolean downlinkOnly) {
    /** As the packet-forwarder protocol writes it, "SF7BW125". */
    public String code() {
        return "SF" + spreadingFactor + "BW" + bandwidthKhz;
    }

    /** The longest payload, in a region whose dwell time is limited or is not. */
    public int maxPayload(boolean dwellTime) {
        return dwellTime && maxPayloadInDwellTime != null ? maxPayloadInDwellTime : maxPayload;
    }

    /**
     * The signal-to-noise ratio in dB below which a receiver cannot make out a frame: -7.5 at SF7, 2.5 less for each
     * step (data sheets of LoRa transceivers; the same table is behind the usual recommendation for adaptive data
     * rate).
     */
    public double floorDb() {
        return -7.5 - 2.5 * (spreadingFactor - 7);
    }

    /** How far above that floor a frame was heard, in dB. */
    public double marginDb(double snrDb) {
        return snrDb - floorDb();
    }

    boolean isForUplinks() {
        return !Boolean.TRUE.equals(downlinkOnly);
    }
}
