package org.openpasture.engine.radio;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.openpasture.api.inlet.InletView;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.engine.config.EngineSettings;
import org.openpasture.engine.heard.GatewayStates;
import org.openpasture.engine.live.LiveEvent;
import org.openpasture.engine.live.Watchers;
import org.openpasture.inlets.gateway.GatewayEvents;
import org.openpasture.inlets.gateway.GatewayStatus;
import org.openpasture.inlets.gateway.RadioFrame;
import org.openpasture.inlets.packetforwarder.PacketForwarderInlet;
import org.openpasture.store.registry.RegistryStore;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * What gateways bring: only registered ones are heard, and the copies of one frame that several of them heard are
 * collected for 200 ms before the radio network gets it once.
 */
@Component
public class GatewayIntake implements GatewayEvents {
    private static final Logger LOG = LoggerFactory.getLogger(GatewayIntake.class);
    private static final long COLLECT_NANOS = TimeUnit.MILLISECONDS.toNanos(200);
    /** A copy that comes later than the window, by a slow uplink of a gateway, is still no new frame. */
    private static final long REMEMBER_NANOS = TimeUnit.SECONDS.toNanos(5);

    private final RegistryStore registry;
    private final RadioNetwork network;
    private final GatewayStates gateways;
    private final GatewayAir air;
    private final DownlinkSender downlinks;
    private final InletLog log;
    private final StationPort stationPort;
    private final Watchers live;
    private final Clock clock;
    private final EngineSettings settings;
    /** Guarded by itself: copies that wait, by the frame's bytes. */
    private final Map<ByteBuffer, List<Reception>> waiting = new HashMap<>();
    /** Guarded by {@link #waiting}: frames taken lately, with who heard them and when they were taken. */
    private final Map<ByteBuffer, Recent> recent = new LinkedHashMap<>();

    private final RadioThread thread;
    private volatile Optional<PacketForwarderInlet> inlet = Optional.empty();
    private volatile String problem = "not yet opened";

    private record Recent(long nanos, List<Eui64> heardBy) {}

    GatewayIntake(
            RegistryStore registry,
            RadioNetwork network,
            RadioThread thread,
            GatewayStates gateways,
            GatewayAir air,
            DownlinkSender downlinks,
            InletLog log,
            StationPort stationPort,
            Watchers live,
            Clock clock,
            EngineSettings settings) {
        this.registry = registry;
        this.network = network;
        this.gateways = gateways;
        this.air = air;
        this.downlinks = downlinks;
        this.log = log;
        this.live = live;
        this.clock = clock;
        this.settings = settings;
        this.thread = thread;
        this.stationPort = stationPort;
    }

    /** Opens the port when everything else is ready. A port that is taken does not stop the service: it is said. */
    @EventListener(ApplicationReadyEvent.class)
    void open() {
        stationPort.open(this);
        downlinks.use(stationPort);
        try {
            PacketForwarderInlet opened = new PacketForwarderInlet(
                    new InetSocketAddress(
                            settings.radio().bind(), settings.radio().port()),
                    this,
                    clock);
            inlet = Optional.of(opened);
            downlinks.use(opened);
            LOG.info("Gateways are heard on UDP port {}", opened.port());
        } catch (IOException e) {
            problem = String.valueOf(e.getMessage());
            LOG.error("{}. Choose another with --pasture.radio.port, or stop the program that holds it.", problem);
        }
    }

    /** The gateway port as it is; empty while it is not open. */
    public Optional<Integer> port() {
        return inlet.map(PacketForwarderInlet::port);
    }

    /** The ways in. */
    public List<InletView> views() {
        List<InletView> all = new ArrayList<>(List.of(view()));
        stationPort.view().ifPresent(all::add);
        return all;
    }

    private InletView view() {
        String address = "UDP " + settings.radio().bind() + ":"
                + inlet.map(PacketForwarderInlet::port).orElse(settings.radio().port());
        return inlet.map(open -> InletView.ofGateways(
                        "LoRaWAN gateways",
                        "packet-forwarder",
                        address,
                        "up",
                        "Gateways can reach it.",
                        open.received(),
                        open.refused(),
                        log.newest()))
                .orElseGet(() -> InletView.ofGateways(
                        "LoRaWAN gateways", "packet-forwarder", address, "down", problem, 0, 0, log.newest()));
    }

    @Override
    public void frame(Eui64 eui, RadioFrame frame) {
        if (registry.now().gateway(eui).isEmpty()) {
            heardUnknown(eui, 1);
            return;
        }
        gateways.frame(frame.reception());
        air.heard(frame.reception(), frame.bytes().length);
        ByteBuffer key = ByteBuffer.wrap(frame.bytes());
        boolean first;
        synchronized (waiting) {
            Recent taken = recent.get(key);
            if (taken != null && !taken.heardBy().contains(eui)) {
                return;
            }
            List<Reception> copies = waiting.get(key);
            first = copies == null;
            if (copies != null) {
                copies.add(frame.reception());
            } else {
                waiting.put(key, new ArrayList<>(List.of(frame.reception())));
            }
        }
        if (first && !thread.offerFrame(COLLECT_NANOS, () -> network.take(key.array(), collected(key)))) {
            synchronized (waiting) {
                waiting.remove(key);
            }
            log.refused(eui.toString(), "too many frames wait; this one was dropped");
        }
    }

    private void heardUnknown(Eui64 eui, int frames) {
        if (gateways.unknown(eui, frames)) {
            live.publish(new LiveEvent("changed", null, null, Map.of("what", "heard-gateways")));
        }
    }

    @Override
    public void status(Eui64 eui, GatewayStatus status) {
        sign(eui, false);
    }

    @Override
    public void reachable(Eui64 eui) {
        sign(eui, true);
    }

    private void sign(Eui64 eui, boolean asksForDownlinks) {
        Optional<Gateway> gateway = registry.now().gateway(eui);
        if (gateway.isEmpty()) {
            heardUnknown(eui, 0);
            return;
        }
        gateways.sign(eui, asksForDownlinks);
        if (live.hasSubscribers()) {
            live.publish(new LiveEvent(
                    "gateway", gateway.get().siteId(), null, gateways.view(registry.now(), gateway.get())));
        }
    }

    @Override
    public void gone(Eui64 eui) {
        gateways.gone(eui);
    }

    @Override
    public void refused(Optional<Eui64> gateway, String sender, String reason) {
        log.refused(gateway.map(eui -> sender + " (" + eui + ")").orElse(sender), reason);
    }

    @Override
    public void transmitted(Eui64 gateway, int token, Optional<String> error) {
        downlinks.transmitted(gateway, token, error);
    }

    private List<Reception> collected(ByteBuffer bytes) {
        synchronized (waiting) {
            List<Reception> copies = waiting.remove(bytes);
            long now = System.nanoTime();
            forgetOld(now);
            Map<Eui64, Reception> strongest = new LinkedHashMap<>();
            (copies == null ? List.<Reception>of() : copies)
                    .forEach(copy -> strongest.merge(copy.gateway(), copy, (a, b) -> a.snrDb() >= b.snrDb() ? a : b));
            recent.remove(bytes);
            recent.put(bytes, new Recent(now, List.copyOf(strongest.keySet())));
            return List.copyOf(strongest.values());
        }
    }

    /** The map is in the order in which frames were taken, so the old ones are in front. */
    private void forgetOld(long now) {
        Iterator<Recent> oldest = recent.values().iterator();
        while (oldest.hasNext() && now - oldest.next().nanos() > REMEMBER_NANOS) {
            oldest.remove();
        }
    }

    @PreDestroy
    void close() {
        inlet.ifPresent(PacketForwarderInlet::close);
        stationPort.close();
    }
}
