package org.openpasture.core.layout;

import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** What is wanted of a device that is asked, and how its answers are read. */
public sealed interface AskedLayout extends Layout permits RegisterLayout, ObjectLayout {
  /** Periods in seconds that some channels have for themselves. */
  Set<Integer> ownPeriods();

  /** The part of it that is asked at a period of its own; with null, the rest, which is asked as the device is. */
  AskedLayout group(@Nullable Integer every);

  /** Channels that people may set from here. */
  Set<String> settable();

  /**
   * What was read for each channel, before it became a number.
   *
   * @throws IllegalArgumentException if the image is none of this layout
   */
  List<Raw> raw(byte[] image);

  /**
   * What was read for a channel.
   *
   * @param where in the device it lies, for people
   * @param text hex digits or what the device said; empty if it was not read
   */
  record Raw(String channel, String where, String text) {}

  private static IllegalArgumentException wrong(String channel, String reason) {
    return new IllegalArgumentException("field '" + channel + "': " + reason);
  }

  /** A period of a field is a second to a day. */
  static void requirePeriod(String channel, @Nullable Integer every) {
    if (every != null && (every < 1 || every > 86_400)) {
      throw wrong(channel, "it is asked every 1 to 86400 seconds, not " + every);
    }
  }

  /** What is said when a channel cannot be set. */
  static IllegalArgumentException cannotBeSet(String channel, Set<String> settable) {
    return new IllegalArgumentException("'" + channel + "' cannot be set; "
        + (settable.isEmpty() ? "the device's model allows it for none of its channels" : "there are " + String.join(" ", settable)));
  }
}
