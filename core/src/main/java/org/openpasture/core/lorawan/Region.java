package org.openpasture.core.lorawan;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Optional;
import tools.jackson.databind.json.JsonMapper;

/**
 * The regional parameters of a band, read from a data file (LoRa Alliance RP002).
 *
 * @param joinDelaySeconds JOIN_ACCEPT_DELAY1; the second window is a second later
 * @param rx1DelaySeconds RECEIVE_DELAY1; the second window is a second later
 * @param extraChannelsHz channels handed to a joining device beside the default ones
 * @param rx1Offsets row by uplink data rate, column by RX1DROffset: the data rate of the first window
 * @param maxPowerDbm highest radiated power of a downlink
 * @param rx2PowerDbm radiated power allowed in the second window's band
 */
public record Region(String id, String title, List<Long> defaultChannelsHz, List<Long> extraChannelsHz,
    List<DataRate> dataRates, List<List<Integer>> rx1Offsets, long rx2FrequencyHz, int rx2DataRate, int joinDelaySeconds,
    int rx1DelaySeconds, int maxPowerDbm, int rx2PowerDbm) {

  /**
   * Reads a region that ships.
   *
   * @param id "eu868"
   * @throws IllegalArgumentException if there is none of that name
   */
  public static Region shipped(String id) {
    try (InputStream in = Region.class.getResourceAsStream("region-" + id + ".json")) {
      if (in == null) {
        throw new IllegalArgumentException("no regional parameters for '" + id + "'; there are eu868");
      }
      return JsonMapper.builder().build().readValue(in, Region.class);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** The data rate of a code such as "SF9BW125". */
  public Optional<DataRate> dataRate(String code) {
    return dataRates.stream().filter(rate -> rate.code().equals(code)).findFirst();
  }

  /** The first receive window: the uplink's frequency, its data rate lowered by the offset. */
  public DataRate rx1(DataRate uplink, int offset) {
    return dataRates.get(rx1Offsets.get(uplink.index()).get(offset));
  }

  public DataRate rx2() {
    return dataRates.get(rx2DataRate);
  }
}
