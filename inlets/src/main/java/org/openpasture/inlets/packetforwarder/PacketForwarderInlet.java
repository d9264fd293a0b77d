package org.openpasture.inlets.packetforwarder;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetSocketAddress;
import java.net.SocketException;
import java.time.Clock;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.inlets.gateway.GatewayEvents;
import org.openpasture.inlets.gateway.GatewayLink;
import org.openpasture.inlets.gateway.Order;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Listens to gateways by the UDP packet-forwarder protocol. PUSH_ACK and PULL_ACK go out at once: they say that the
 * datagram came, not that it is kept.
 */
public final class PacketForwarderInlet implements GatewayLink, AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(PacketForwarderInlet.class);
    private static final int LARGEST_DATAGRAM = 65_507;
    /** So many gateways can be answered; a flood of invented EUIs must not fill the memory. */
    private static final int MOST_GATEWAYS = 10_000;

    private final DatagramSocket socket;
    private final GatewayEvents events;
    private final Clock clock;
    private final Map<Eui64, InetSocketAddress> reachable = new ConcurrentHashMap<>();
    private final FloodGuard floods = new FloodGuard(System::nanoTime);
    private final AtomicLong received = new AtomicLong();
    private final AtomicLong refused = new AtomicLong();
    private final Thread thread;

    /**
     * Opens the port and begins to listen.
     *
     * @throws IOException if the port is taken
     */
    public PacketForwarderInlet(InetSocketAddress address, GatewayEvents events, Clock clock) throws IOException {
        this.events = events;
        this.clock = clock;
        try {
            this.socket = new DatagramSocket(address);
        } catch (SocketException e) {
            throw new IOException(
                    "UDP port " + address.getPort() + " for gateways cannot be opened: " + e.getMessage(), e);
        }
        socket.setReceiveBufferSize(4 << 20);
        this.thread = Thread.ofPlatform().name("packet-forwarder").daemon().start(this::listen);
    }

    public int port() {
        return socket.getLocalPort();
    }

    /** Datagrams that came in since the start. */
    public long received() {
        return received.get();
    }

    /** Datagrams, or frames in them, that could not be used. */
    public long refused() {
        return refused.get();
    }

    private void listen() {
        byte[] buffer = new byte[LARGEST_DATAGRAM];
        while (!socket.isClosed()) {
            DatagramPacket packet = new DatagramPacket(buffer, buffer.length);
            try {
                socket.receive(packet);
                received.incrementAndGet();
                handle(packet);
            } catch (IOException e) {
                if (!socket.isClosed()) {
                    LOG.warn("gateway port: {}", e.getMessage());
                }
            } catch (RuntimeException e) {
                LOG.error("a datagram could not be handled; the inlet goes on", e);
            }
        }
    }

    private void handle(DatagramPacket packet) throws IOException {
        InetSocketAddress sender = (InetSocketAddress) packet.getSocketAddress();
        switch (floods.admit(sender)) {
            case FloodGuard.Verdict.DROPPED_FIRST -> {
                refuse(
                        Optional.empty(),
                        sender,
                        "more than " + FloodGuard.A_SECOND
                                + " datagrams a second come from this address; what is above that is dropped");
                return;
            }
            case FloodGuard.Verdict.DROPPED -> {
                refused.incrementAndGet();
                return;
            }
            case FloodGuard.Verdict.ADMITTED -> {}
        }
        Optional<Datagram> datagram = Datagram.read(packet.getData(), packet.getLength());
        if (datagram.isEmpty()) {
            refuse(
                    Optional.empty(),
                    sender,
                    packet.getLength() < 12
                            ? "a datagram that is cut off (" + packet.getLength() + " bytes)"
                            : "not a datagram of the packet-forwarder protocol, version 2");
            return;
        }
        switch (datagram.get()) {
            case Datagram.PushData(int token, Eui64 gateway, byte[] json) -> {
                answer(Datagram.acknowledge(token, Datagram.PUSH_ACK), sender);
                ForwarderJson.Push push = ForwarderJson.readPush(gateway, json, clock.instant());
                push.frames().forEach(frame -> events.frame(gateway, frame));
                push.status().ifPresent(status -> events.status(gateway, status));
                push.refusals().forEach(reason -> refuse(Optional.of(gateway), sender, reason));
            }
            case Datagram.PullData(int token, Eui64 gateway) -> {
                answer(Datagram.acknowledge(token, Datagram.PULL_ACK), sender);
                if (reachable.size() < MOST_GATEWAYS || reachable.containsKey(gateway)) {
                    reachable.put(gateway, sender);
                    events.reachable(gateway);
                }
            }
            case Datagram.TxAck(int token, Eui64 gateway, byte[] json) ->
                events.transmitted(gateway, token, ForwarderJson.readError(json));
        }
    }

    private void refuse(Optional<Eui64> gateway, InetSocketAddress sender, String reason) {
        refused.incrementAndGet();
        events.refused(gateway, sender.getAddress().getHostAddress(), reason);
    }

    private void answer(byte[] bytes, InetSocketAddress to) throws IOException {
        socket.send(new DatagramPacket(bytes, bytes.length, to));
    }

    @Override
    public int hand(Eui64 gateway, int token, Order order, int from) {
        InetSocketAddress address = reachable.get(gateway);
        if (address == null) {
            return 0;
        }
        try {
            answer(
                    Datagram.pullResponse(
                            token,
                            ForwarderJson.writeTransmission(
                                    order, order.windows().get(from))),
                    address);
            return 1;
        } catch (IOException e) {
            LOG.warn("gateway {} could not be handed a downlink: {}", gateway, e.getMessage());
            return 0;
        }
    }

    @Override
    public void close() {
        socket.close();
        try {
            thread.join(2_000);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
