package org.openpasture.core.lorawan;

import java.time.Duration;

/**
 * How long a LoRa frame takes on the air, by the formula of the transceivers' data sheets (SX1272/76, section 4.1.1.7).
 */
public final class TimeOnAir {
    private static final int PREAMBLE_SYMBOLS = 8;

    private TimeOnAir() {}

    /**
     * The duration of a frame with explicit header, eight symbols of preamble and coding rate 4/5, as LoRaWAN has them.
     * Symbols of more than 16 ms (SF11 and SF12 at 125 kHz) are sent with the low data rate optimisation.
     *
     * @param length bytes from MHDR to MIC
     * @param checksum whether a CRC follows: uplinks have one, downlinks do not
     */
    public static Duration of(DataRate rate, int length, boolean checksum) {
        return of(rate.spreadingFactor(), rate.bandwidthKhz(), length, checksum);
    }

    /** The same for a spreading factor of 7 to 12 and a bandwidth of 125, 250 or 500 kHz. */
    public static Duration of(int spreadingFactor, int bandwidthKhz, int length, boolean checksum) {
        double symbolMillis = (double) (1 << spreadingFactor) / bandwidthKhz;
        int optimised = symbolMillis > 16 ? 1 : 0;
        double bits = 8.0 * length - 4 * spreadingFactor + 28 + (checksum ? 16 : 0);
        double payload = 8 + Math.max(Math.ceil(bits / (4 * (spreadingFactor - 2 * optimised))) * 5, 0);
        return Duration.ofNanos(Math.round((PREAMBLE_SYMBOLS + 4.25 + payload) * symbolMillis * 1e6));
    }
}
