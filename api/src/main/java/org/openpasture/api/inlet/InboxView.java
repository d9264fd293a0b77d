package org.openpasture.api.inlet;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What became of a message that was posted.
 *
 * @param taken parts that were kept
 * @param thinned parts that were read and not worth a record of their own
 * @param parts those that were not taken
 */
public record InboxView(int taken, int thinned, List<NotTaken> parts) {
  /**
   * A part that was not taken.
   *
   * @param part counted from 1, in the order of the message
   * @param address null if it was not found
   */
  public record NotTaken(int part, @Nullable String address, String reason) {}
}
