package org.openpasture.core.reading;

import java.time.Instant;

/**
 * One value of a point at a moment, in the point's unit.
 *
 * @param time the moment that the value belongs to: the sender's time if plausible, else arrival
 * @param value finite; a value that could not be read is not a reading
 */
public record Reading(Instant time, double value, Quality quality) {
  public Reading {
    if (!Double.isFinite(value)) {
      throw new IllegalArgumentException("a reading needs a finite value, not " + value);
    }
  }

  public static Reading good(Instant time, double value) {
    return new Reading(time, value, Quality.GOOD);
  }
}
