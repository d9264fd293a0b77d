package org.openpasture.engine.heard;

import jakarta.annotation.PreDestroy;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletableFuture;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.live.LiveEvent;
import org.openpasture.engine.live.Watchers;
import org.openpasture.inlets.loop.Loop;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.telemetry.Committed;
import org.openpasture.store.telemetry.Deposit;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.stereotype.Component;

/** Writes frames down, with what is to be written together with them, and tells whoever is looking. */
@Component
public class FrameKeeper {
    private static final int MOST_UNTOLD = 1_000;
    private final RegistryStore registry;
    private final TelemetryStore telemetry;
    private final DeviceStates devices;
    private final FrameViews views;
    private final Watchers live;
    /** Frames of a commit each that pages were not told of yet; where too many wait, pages miss some. */
    private final BlockingQueue<List<Frame>> untold = new ArrayBlockingQueue<>(MOST_UNTOLD);

    private final Loop loop;

    FrameKeeper(
            RegistryStore registry, TelemetryStore telemetry, DeviceStates devices, FrameViews views, Watchers live) {
        this.registry = registry;
        this.telemetry = telemetry;
        this.devices = devices;
        this.views = views;
        this.live = live;
        telemetry.onCommitted(this::committed);
        this.loop = Loop.onVirtualThread("frame-news", this::turn).start();
    }

    /** Writes; the future completes when it is on disk, and only then may the sender be answered. */
    public CompletableFuture<Committed> keep(Deposit deposit) {
        // Why nothing can be written is said by the store, once for all frames.
        return telemetry.submit(deposit);
    }

    /** On the writing thread: pages are told elsewhere, and those who cannot follow load afresh. */
    private void committed(Committed committed) {
        if (!committed.frames().isEmpty() && live.hasSubscribers()) {
            untold.offer(committed.frames());
        }
    }

    private void turn() throws InterruptedException {
        List<Frame> frames = untold.take();
        Registry now = registry.now();
        Set<String> heard = new LinkedHashSet<>();
        for (Frame frame : frames) {
            placeOf(now, frame)
                    .ifPresent(place -> live.publish(LiveEvent.lazily("frame", place, () -> views.view(now, frame))));
            if (frame.deviceId() != null) {
                heard.add(frame.deviceId());
            }
        }
        // Of many frames of one device in a commit only how it is after them is of interest.
        heard.forEach(id -> now.find(Device.class, id)
                .ifPresent(device ->
                        live.publish(LiveEvent.lazily("device", device.placeId(), () -> devices.view(now, device)))));
    }

    private static Optional<String> placeOf(Registry now, Frame frame) {
        return now.find(Device.class, frame.deviceId())
                .map(Device::placeId)
                .or(() -> frame.receptions().stream()
                        .flatMap(reception -> now.gateway(reception.gateway()).stream())
                        .map(Gateway::siteId)
                        .findFirst())
                .or(() -> now.find(Inlet.class, frame.inletId()).map(Inlet::siteId));
    }

    @PreDestroy
    void close() {
        loop.close();
    }
}
