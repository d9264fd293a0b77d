package org.openpasture.engine.heard;

import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.live.LiveEvent;
import org.openpasture.engine.live.Watchers;
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
    private final Watchers live;

    FrameKeeper(
            RegistryStore registry, TelemetryStore telemetry, DeviceStates devices, FrameViews views, Watchers live) {
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
                tell(deposit.frames(), committed);
            } else {
                LOG.error("a frame could not be written and is not answered", error);
            }
        });
    }

    private void tell(List<Frame> frames, Committed committed) {
        if (!live.hasSubscribers()) {
            return;
        }
        // One commit may hold many thousand frames of others: they are found by the bytes that they share with ours.
        Map<byte[], Frame> kept = new IdentityHashMap<>();
        committed.frames().forEach(frame -> kept.put(frame.bytes(), frame));
        frames.forEach(frame -> tell(registry.now(), kept.getOrDefault(frame.bytes(), frame)));
    }

    private void tell(Registry now, Frame frame) {
        Optional<Device> device = now.find(Device.class, frame.deviceId());
        Optional<String> placeId = device.isPresent()
                ? device.map(Device::placeId)
                : frame.receptions().stream()
                        .flatMap(reception -> now.gateway(reception.gateway()).stream())
                        .map(Gateway::siteId)
                        .findFirst()
                        .or(() -> now.find(Inlet.class, frame.inletId()).map(Inlet::siteId));
        if (placeId.isEmpty()) {
            return;
        }
        live.publish(new LiveEvent("frame", placeId.get(), null, views.view(now, frame)));
        device.ifPresent(one -> live.publish(new LiveEvent("device", placeId.get(), null, devices.view(now, one))));
    }
}
