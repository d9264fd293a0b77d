package org.openpasture.engine.radio;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.time.Clock;
import java.util.Optional;
import javax.net.ssl.SSLContext;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.inlet.InletView;
import org.openpasture.engine.band.RadioPlan;
import org.openpasture.engine.config.EngineSettings;
import org.openpasture.inlets.gateway.GatewayEvents;
import org.openpasture.inlets.gateway.GatewayLink;
import org.openpasture.inlets.station.StationInlet;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.ssl.SslBundles;
import org.springframework.stereotype.Component;

/** The port for gateways that speak the WebSocket station protocol, encrypted if a certificate is configured. */
@Component
public class StationPort {
    private static final Logger LOG = LoggerFactory.getLogger(StationPort.class);
    private final RadioPlan plan;
    private final GatewayTokens tokens;
    private final InletLog log;
    private final SslBundles bundles;
    private final EngineSettings.Radio radio;
    private final Clock clock;
    private volatile @Nullable StationInlet inlet;
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
     * Opens the port; a port that is taken, or a certificate that cannot be read, does not stop the service: it is
     * said.
     */
    Optional<GatewayLink> open(GatewayEvents events) {
        if (radio.stationPort() < 0) {
            return Optional.empty();
        }
        try {
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
            return Optional.of(opened);
        } catch (IOException | RuntimeException e) {
            problem = String.valueOf(e.getMessage());
            LOG.error("{}. Choose another with --pasture.radio.station-port, or -1 for none.", problem);
            return Optional.empty();
        }
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
        StationInlet open = inlet;
        if (open != null) {
            open.close();
        }
    }
}
