package org.openpasture.core.fleet;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.layout.Layout;
import org.openpasture.core.entity.Entity;

/**
 * A kind of device: how its frames are read and what its channels mean. What is set here holds for all its devices.
 *
 * @param intervalSeconds how often such a device usually reports
 * @param batteryChannel the channel that holds the battery voltage; null if mains powered
 */
public record DeviceModel(String id, String name, String description, int intervalSeconds,
    @Nullable String batteryChannel, Layout layout, List<Channel> channels) implements Entity {
  public DeviceModel {
    channels = List.copyOf(channels);
    if (intervalSeconds < 1) {
      throw new IllegalArgumentException("the usual interval is at least one second");
    }
  }

  public Optional<Channel> channel(String channelName) {
    return channels.stream().filter(channel -> channel.name().equals(channelName)).findFirst();
  }
}
