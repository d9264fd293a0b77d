package org.openpasture.inlets.bacnet;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.SocketAddress;
import java.time.Duration;
import java.util.Arrays;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.IntFunction;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.bacnet.Apdu;
import org.openpasture.core.bacnet.CovNotification;
import org.openpasture.core.bacnet.IAm;
import org.openpasture.core.bacnet.Packet;
import org.openpasture.core.bacnet.WhoIs;
import org.openpasture.inlets.loop.Loop;

/**
 * A UDP port by which controllers are spoken with: finds the answer to each request, and hands on what they say by
 * themselves. Any thread may use it.
 */
final class BacnetPort implements AutoCloseable {
    private static final int TRIES = 2;
    private static final int RECEIVE_BUFFER = 4 << 20;
    private final DatagramSocket socket;
    private final Duration timeout;
    private final Listener listener;
    private final Map<Pending, CompletableFuture<Apdu>> pending = new ConcurrentHashMap<>();
    private final AtomicInteger invokeIds = new AtomicInteger();
    private final Loop receiver;
    private final byte[] buffer = new byte[Packet.LONGEST + 1];
    private final DatagramPacket datagram = new DatagramPacket(buffer, buffer.length);

    /** A controller on the network. */
    record Station(InetSocketAddress address, Optional<Packet.Network> network) {}

    private record Pending(SocketAddress peer, int invokeId) {}

    /** Hears what controllers say by themselves; must not wait. */
    interface Listener {
        void iAm(IAm who, Station station);

        void changed(CovNotification what);

        void malformed(String sender, String reason);
    }

    /** A controller does not answer, or not with what was asked for. */
    static final class NoAnswer extends IOException {
        private static final long serialVersionUID = 1L;
        /** Whether it answered that it will not. */
        final boolean refused;

        NoAnswer(String message, boolean refused) {
            super(message);
            this.refused = refused;
        }
    }

    BacnetPort(@Nullable String bind, int port, Duration timeout, Listener listener) throws IOException {
        this.timeout = timeout;
        this.listener = listener;
        this.socket = new DatagramSocket(null);
        try {
            socket.setBroadcast(true);
            socket.setReceiveBufferSize(RECEIVE_BUFFER);
            socket.bind(
                    bind == null
                            ? new InetSocketAddress(port)
                            : new InetSocketAddress(InetAddress.getByName(bind), port));
        } catch (IOException e) {
            socket.close();
            throw new IOException(
                    "UDP port " + port + " cannot be had (" + e.getMessage()
                            + "): another program has it, or another inlet",
                    e);
        }
        this.receiver = Loop.onVirtualThread("bacnet-" + socket.getLocalPort(), this::receive)
                .start();
    }

    int port() {
        return socket.getLocalPort();
    }

    Duration timeout() {
        return timeout;
    }

    /** Asks at an address who is there. */
    void whoIs(WhoIs whom, InetSocketAddress at) throws IOException {
        byte[] bytes = Packet.toAll(whom.apdu().toBytes()).toBytes();
        socket.send(new DatagramPacket(bytes, bytes.length, at));
    }

    /**
     * Sends a request, and once more if nothing comes.
     *
     * @param request made for an invoke id
     * @return what came as answer; empty bytes for a mere confirmation
     */
    byte[] ask(Station station, IntFunction<Apdu> request) throws NoAnswer, InterruptedException {
        CompletableFuture<Apdu> answer = new CompletableFuture<>();
        Pending key = reserve(station, answer);
        byte[] bytes = Packet.to(
                        station.network(), true, request.apply(key.invokeId()).toBytes())
                .toBytes();
        try {
            for (int attempt = 1; ; attempt++) {
                socket.send(new DatagramPacket(bytes, bytes.length, station.address()));
                try {
                    return switch (answer.get(timeout.toMillis(), TimeUnit.MILLISECONDS)) {
                        case Apdu.Answer(int id, int service, byte[] content) -> content;
                        case Apdu.Failed(int id, String reason) -> throw new NoAnswer(reason, true);
                        case Apdu.Done done -> new byte[0];
                        case Apdu.Confirmed other -> throw new NoAnswer("it answers with a question", true);
                        case Apdu.Unconfirmed other -> throw new NoAnswer("it answers with an announcement", true);
                    };
                } catch (TimeoutException e) {
                    if (attempt == TRIES) {
                        throw new NoAnswer("no answer within " + timeout.toMillis() + " ms", false);
                    }
                }
            }
        } catch (ExecutionException e) {
            throw new NoAnswer(String.valueOf(e.getCause()), false);
        } catch (NoAnswer e) {
            throw e;
        } catch (IOException e) {
            throw new NoAnswer(station.address().getHostString() + " cannot be reached: " + e.getMessage(), false);
        } finally {
            pending.remove(key, answer);
        }
    }

    private Pending reserve(Station station, CompletableFuture<Apdu> answer) throws NoAnswer {
        for (int i = 0; i < 256; i++) {
            Pending key = new Pending(station.address(), invokeIds.getAndIncrement() & 0xFF);
            if (pending.putIfAbsent(key, answer) == null) {
                return key;
            }
        }
        throw new NoAnswer("256 requests wait for it already", false);
    }

    private void receive() throws IOException {
        datagram.setLength(buffer.length);
        socket.receive(datagram);
        take(Arrays.copyOf(buffer, datagram.getLength()), (InetSocketAddress) datagram.getSocketAddress());
    }

    private void take(byte[] bytes, InetSocketAddress sender) throws IOException {
        try {
            Optional<Packet> packet = Packet.of(bytes);
            if (packet.isPresent()) {
                take(
                        Apdu.of(packet.get().apdu()),
                        new Station(
                                packet.get()
                                        .origin()
                                        .map(origin -> new InetSocketAddress(origin.host(), origin.port()))
                                        .orElse(sender),
                                packet.get().network()));
            }
        } catch (IllegalArgumentException e) {
            listener.malformed(sender.getHostString(), String.valueOf(e.getMessage()));
        }
    }

    private void take(Apdu apdu, Station from) throws IOException {
        switch (apdu) {
            case Apdu.Unconfirmed(Apdu.Announcement announcement, byte[] content) -> {
                switch (announcement) {
                    case I_AM -> listener.iAm(IAm.of(content), from);
                    case COV_NOTIFICATION -> listener.changed(CovNotification.of(content));
                    case WHO_IS, OTHER -> {}
                }
            }
            case Apdu.Confirmed(int id, Apdu.Service service, byte[] content) -> {
                Apdu answer = new Apdu.Failed(id, "");
                if (service == Apdu.Service.COV_NOTIFICATION) {
                    listener.changed(CovNotification.of(content));
                    answer = new Apdu.Done(id, service.code());
                }
                byte[] bytes =
                        Packet.to(from.network(), false, answer.toBytes()).toBytes();
                socket.send(new DatagramPacket(bytes, bytes.length, from.address()));
            }
            case Apdu.Done(int id, int service) -> answered(from, id, apdu);
            case Apdu.Answer(int id, int service, byte[] content) -> answered(from, id, apdu);
            case Apdu.Failed(int id, String reason) -> answered(from, id, apdu);
        }
    }

    private void answered(Station from, int id, Apdu apdu) {
        Optional.ofNullable(pending.get(new Pending(from.address(), id))).ifPresent(waiting -> waiting.complete(apdu));
    }

    @Override
    public void close() {
        receiver.end();
        socket.close();
        receiver.join();
    }
}
