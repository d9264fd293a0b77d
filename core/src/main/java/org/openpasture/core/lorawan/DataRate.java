package org.openpasture.core.lorawan;

/**
 * A LoRa data rate of a region.
 *
 * @param spreadingFactor 7 to 12
 * @param bandwidthKhz 125, 250 or 500
 * @param maxPayload longest application payload in bytes without options (RP002, "N")
 */
public record DataRate(int index, int spreadingFactor, int bandwidthKhz, int maxPayload) {
  /** As the packet-forwarder protocol writes it, "SF7BW125". */
  public String code() {
    return "SF" + spreadingFactor + "BW" + bandwidthKhz;
  }
}
