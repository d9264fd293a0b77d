package org.openpasture.service.heard;

import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.registry.Registry;
import org.openpasture.service.live.LiveEvent;
import org.openpasture.service.live.LiveHub;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.telemetry.Committed;
import org.openpasture.store.telemetry.Deposit;
import org.openpasture.store.telemetry.TelemetryStore;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Writes frames down, with what is to be written together with them, and tells whoever is looking. */
@Component
public class FrameKeeper {
  private static final Logger LOG = LoggerFactory.getLogger(FrameKeeper.class);
  private final RegistryStore registry;
  private final TelemetryStore telemetry;
  private final DeviceStates devices;
  private final FrameViews views;
  private final LiveHub live;

  FrameKeeper(RegistryStore registry, TelemetryStore telemetry, DeviceStates devices, FrameViews views, LiveHub live) {
    this.registry = registry;
    this.telemetry = telemetry;
    this.devices = devices;
    this.views = views;
    this.live = live;
  }

  /** Writes; the future completes when it is on disk, and only then may the sender be answered. */
  public CompletableFuture<Committed> keep(Deposit deposit) {
    return telemetry.submit(deposit).whenComplete((committed, error) -> {
      if (error == null) {
        deposit.frames().forEach(frame -> tell(committed, frame));
      } else {
        LOG.error("a frame could not be written and is not answered", error);
      }
    });
  }

  private void tell(Committed committed, Frame frame) {
    if (!live.hasSubscribers()) {
      return;
    }
    Registry now = registry.now();
    Optional<Device> device = now.find(Device.class, frame.deviceId());
    Optional<String> placeId = device.isPresent() ? device.map(Device::placeId) : frame.receptions().stream()
        .flatMap(reception -> now.gateway(reception.gateway()).stream()).map(Gateway::siteId).findFirst()
        .or(() -> now.find(Inlet.class, frame.inletId()).map(Inlet::siteId));
    if (placeId.isEmpty()) {
      return;
    }
    Frame kept = committed.frames().stream().filter(one -> one.bytes() == frame.bytes() && one.receivedAt().equals(frame.receivedAt()))
        .findFirst().orElse(frame);
    live.publish(new LiveEvent("frame", placeId.get(), null, views.view(now, kept)));
    device.ifPresent(one -> live.publish(new LiveEvent("device", placeId.get(), null, devices.view(now, one))));
  }
}
