package org.openpasture.api.fleet;

import java.time.Instant;
import java.util.List;

/**
 * A way in.
 *
 * @param state up or down
 * @param reason the state in words
 */
public record InletView(String name, String kind, String address, String state, String reason, long received, long refused,
    List<Refusal> refusals) {
  /** Something that came in and could not be used. */
  public record Refusal(Instant time, String sender, String reason) {}
}
