package org.openpasture.engine.radio;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.time.Clock;
import java.util.Optional;
import javax.net.ssl.SSLContext;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.inlet.InletView;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.engine.band.RadioPlan;
import org.openpasture.engine.config.EngineSettings;
import org.openpasture.inlets.gateway.GatewayEvents;
import org.openpasture.inlets.gateway.GatewayLink;
import org.openpasture.inlets.gateway.Order;
import org.openpasture.inlets.loop.Loop;
import org.openpasture.inlets.station.StationInlet;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.ssl.SslBundles;
import org.springframework.stereotype.Component;

/** The port for gateways that speak the WebSocket station protocol, encrypted if a certificate is configured. */
@Component
public class StationPort implements GatewayLink {
    private static final Logger LOG = LoggerFactory.getLogger(StationPort.class);
    private final RadioPlan plan;
    private final GatewayTokens tokens;
    private final InletLog log;
    private final SslBundles bundles;
    private final EngineSettings.Radio radio;
    private final Clock clock;
    private volatile @Nullable StationInlet inlet;
    private volatile @Nullable Loop loop;
    private volatile String problem = "not yet opened";

    StationPort(
            RadioPlan plan,
            GatewayTokens tokens,
            InletLog log,
            SslBundles bundles,
            EngineSettings settings,
            Clock clock) {
        this.plan = plan;
        this.tokens = tokens;
        this.log = log;
        this.bundles = bundles;
        this.radio = settings.radio();
        this.clock = clock;
    }

    /**
     * Opens the port, and again whenever it has ended. A port that is taken, or a certificate that cannot be read, does
     * not stop the service: it is said, and tried again.
     */
    void open(GatewayEvents events) {
        if (radio.stationPort() < 0) {
            return;
        }
        try {
            listen(events);
        } catch (IOException | RuntimeException e) {
            problem = String.valueOf(e.getMessage());
            LOG.error("{}. Choose another with --pasture.radio.station-port, or -1 for none.", problem);
        }
        loop = Loop.onVirtualThread("station-port", () -> keepOpen(events), failure -> {
                    if (!failure.isEmpty()) {
                        problem = failure;
                    }
                })
                .start();
    }

    private void keepOpen(GatewayEvents events) throws IOException, InterruptedException {
        StationInlet open = inlet;
        if (open == null) {
            listen(events);
            return;
        }
        open.awaitEnd();
        inlet = null;
        problem = "It has ended by a failure, and is opened again.";
        open.close();
    }

    private void listen(GatewayEvents events) throws IOException {
        SSLContext tls = radio.stationCertificate() == null
                ? null
                : bundles.getBundle(radio.stationCertificate()).createSslContext();
        StationInlet opened = new StationInlet(
                new InetSocketAddress(radio.bind(), radio.stationPort()),
                tls,
                () -> new StationInlet.Plan(plan.now().region(), plan.now().subBand()),
                tokens::admits,
                events,
                clock);
        inlet = opened;
        LOG.info(
                "Stations are heard on port {}, {}",
                opened.port(),
                opened.isEncrypted() ? "encrypted" : "in plain text");
    }

    @Override
    public int hand(Eui64 gateway, int token, Order order, int from) {
        StationInlet open = inlet;
        return open == null ? 0 : open.hand(gateway, token, order, from);
    }

    /** The port as it is; empty while it is not open. */
    public Optional<Integer> port() {
        return Optional.ofNullable(inlet).map(StationInlet::port);
    }

    Optional<InletView> view() {
        if (radio.stationPort() < 0) {
            return Optional.empty();
        }
        StationInlet open = inlet;
        if (open == null) {
            return Optional.of(InletView.ofGateways(
                    "LoRaWAN stations", "station", "port " + radio.stationPort(), "down", problem, 0, 0, log.newest()));
        }
        return Optional.of(InletView.ofGateways(
                "LoRaWAN stations",
                "station",
                (open.isEncrypted() ? "wss://" : "ws://") + radio.bind() + ":" + open.port(),
                "up",
                open.connected() == 0 ? "Stations can reach it; none is connected." : open.connected() + " connected.",
                open.received(),
                open.refused(),
                log.newest()));
    }

    void close() {
        Loop running = loop;
        if (running != null) {
            running.close();
        }
        StationInlet open = inlet;
        if (open != null) {
            open.close();
        }
    }
}
