package org.openpasture.api.commissioning;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * How far a device is on its way in, step by step.
 *
 * @param done whether all steps are
 * @param checks response checks, the newest first
 */
public record CommissioningView(String deviceId, List<Step> steps, boolean done, List<CheckView> checks) {
  /**
   * One step.
   *
   * @param id gateway, heard, key, answer, window, data, decoder, meaning or response
   * @param state done, waiting, failed or later
   * @param words what is known
   * @param todo what to do about it; empty if nothing
   * @param at when it was passed or failed; null if neither
   */
  public record Step(String id, String title, String state, String words, String todo, @Nullable Instant at) {}

  /**
   * A response check.
   *
   * @param worked null while it lasts or if nobody said
   * @param running whether it lasts
   * @param before the last value before it; null if there was none
   */
  public record CheckView(String id, String pointId, String pointName, String unit, Instant from, Instant until, String person, @Nullable Boolean worked,
      String note, boolean running, @Nullable Double before, @Nullable Double lowest, @Nullable Double highest) {}
}
