package org.openpasture.api.inlet;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A device that is asked, and how that goes.
 *
 * @param everySeconds how often
 * @param paused whether it is not asked for now
 * @param at when it was asked last; null before the first time
 * @param tookMillis how long its last round lasted
 * @param rounds since the service started
 * @param late of these, ended after the next one should have begun
 * @param problem what went wrong last; empty if nothing did
 * @param values what was read last, "channel=value"
 * @param blocks what came, block by block
 */
public record PollView(String deviceId, String deviceName, String address, int everySeconds, boolean paused, @Nullable Instant at, long tookMillis, long rounds,
    long late, String problem, String values, List<Block> blocks) {
  /**
   * Registers or bits that were read together.
   *
   * @param data hex digits: four for a register, two for a bit
   */
  public record Block(String table, int from, String data) {}
}
