package org.openpasture.service.radio;

import java.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.registry.Registry;
import org.openpasture.inlets.gateway.Order;
import org.openpasture.service.live.LiveEvent;
import org.openpasture.service.live.LiveHub;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.telemetry.Deposit;
import org.openpasture.store.telemetry.TelemetryStore;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Writes down what the radio network heard and sent, and tells whoever is looking. */
@Component
class RadioFrames {
  private static final Logger LOG = LoggerFactory.getLogger(RadioFrames.class);
  private final RegistryStore registry;
  private final TelemetryStore telemetry;
  private final DeviceStates devices;
  private final FrameViews frameViews;
  private final LiveHub live;
  private final Clock clock;

  RadioFrames(RegistryStore registry, TelemetryStore telemetry, DeviceStates devices, FrameViews frameViews, LiveHub live, Clock clock) {
    this.registry = registry;
    this.telemetry = telemetry;
    this.devices = devices;
    this.frameViews = frameViews;
    this.live = live;
    this.clock = clock;
  }

  /** How something was sent. */
  String inWords(DownlinkSender.Outcome.Sent sent) {
    Order.Window window = sent.window();
    return "sent " + (window.name().equals("at once") ? window.name() : "in " + window.name()) + " by "
        + registry.now().gateway(sent.gateway()).map(Gateway::name).orElse(sent.gateway().toString())
        + String.format(Locale.ROOT, " at %.3f MHz, %s", window.frequencyHz() / 1e6, window.dataRate().code())
        + (sent.confirmed() ? "" : "; the gateway did not say whether it did");
  }

  /** Keeps what was sent to a device, or could not be, as a frame of its own. */
  void downlink(Device device, String kind, String address, int port, byte[] bytes, byte[] payload, DownlinkSender.Outcome outcome) {
    Frame frame = switch (outcome) {
      case DownlinkSender.Outcome.Sent sent ->
          frame(device, kind, address, port, -1, bytes, payload, Frame.Outcome.ACCEPTED, inWords(sent), "", List.of());
      case DownlinkSender.Outcome.NotSent(String why) ->
          frame(device, kind, address, port, -1, bytes, payload, Frame.Outcome.REFUSED, "not sent: " + why, "", List.of());
    };
    keep(Deposit.of(frame), device, frame, () -> { });
  }

  Frame frame(@Nullable Device device, String kind, String address, int port, long counter, byte[] bytes, byte[] payload,
      Frame.Outcome outcome, @Nullable String reason, String values, List<Reception> receptions) {
    return new Frame(0, clock.instant(), kind, device == null ? null : device.id(), address, bytes, payload, port, counter,
        outcome, reason, values, receptions);
  }

  /** Writes, then goes on with what must not happen before; what could not be written is not answered. */
  void keep(Deposit deposit, @Nullable Device device, Frame frame, Runnable then) {
    telemetry.submit(deposit).whenComplete((committed, error) -> {
      if (error == null) {
        then.run();
        tell(device, committed.frames(), frame);
      } else {
        LOG.error("a frame could not be written and is not answered", error);
      }
    });
  }

  /** Something changed in what is sent to a device. */
  void tellOfCommands(String deviceId) {
    if (live.hasSubscribers()) {
      registry.now().find(Device.class, deviceId).ifPresent(device ->
          live.publish(new LiveEvent("changed", device.placeId(), null, Map.of("what", "commands", "deviceId", deviceId))));
    }
  }

  private void tell(@Nullable Device device, List<Frame> committed, Frame frame) {
    if (!live.hasSubscribers()) {
      return;
    }
    Registry now = registry.now();
    Frame kept = committed.stream().filter(one -> one.bytes() == frame.bytes() && one.receivedAt().equals(frame.receivedAt()))
        .findFirst().orElse(frame);
    String placeId = device != null ? device.placeId() : frame.receptions().stream()
        .flatMap(reception -> now.gateway(reception.gateway()).stream()).map(gateway -> gateway.siteId()).findFirst().orElse(null);
    if (placeId == null) {
      return;
    }
    live.publish(new LiveEvent("frame", placeId, null, frameViews.view(now, kept)));
    if (device != null) {
      live.publish(new LiveEvent("device", placeId, null, devices.view(now, device)));
    }
  }
}
