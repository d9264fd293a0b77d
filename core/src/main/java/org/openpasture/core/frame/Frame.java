package org.openpasture.core.frame;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One message as it came in, and what became of it. Refused ones are kept as well, with the reason.
 *
 * @param id given by the store when it is kept, 0 before
 * @param kind what it was: one of the constants below, or "unreadable"
 * @param deviceId null where no registered device sent it
 * @param bytes as received
 * @param payload decrypted application payload; empty if there is none
 * @param port radio port, -1 if none
 * @param counter full frame counter, -1 if none
 * @param reason why it was refused, or what is noteworthy; null if all is well
 * @param values what was read from it, "channel=value" in the layout's order
 */
public record Frame(long id, Instant receivedAt, String kind, @Nullable String deviceId, String address,
    byte[] bytes, byte[] payload, int port, long counter, Outcome outcome, @Nullable String reason, String values,
    List<Reception> receptions) {

  public static final String UPLINK = "uplink";
  public static final String JOIN_REQUEST = "join request";
  /** Sent to a device. */
  public static final String DOWNLINK = "downlink";
  public static final String JOIN_ACCEPT = "join accept";

  /** What became of a frame. */
  public enum Outcome { ACCEPTED, REFUSED }

  /** Whether it was sent to a device, rather than heard. */
  public boolean isToDevice() {
    return kind.equals(DOWNLINK) || kind.equals(JOIN_ACCEPT);
  }

  public Frame withId(long given) {
    return new Frame(given, receivedAt, kind, deviceId, address, bytes, payload, port, counter, outcome, reason, values,
        receptions);
  }
}
