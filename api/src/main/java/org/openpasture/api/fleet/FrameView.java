package org.openpasture.api.fleet;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One frame as it came in and what became of it.
 *
 * @param bytes hex, as received
 * @param payload hex, decrypted
 * @param values "channel=value", separated by blanks
 */
public record FrameView(long id, Instant time, String kind, @Nullable String deviceId, @Nullable String deviceName, String address,
    String bytes, String payload, int port, long counter, boolean accepted, @Nullable String reason, String values,
    List<Heard> heard) {

  /** How one gateway heard it. */
  public record Heard(String gatewayEui, @Nullable String gatewayName, double rssiDbm, double snrDb, String dataRate,
      double frequencyMhz) {}
}
