package org.openpasture.inlets.stream;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.SocketException;
import java.util.Arrays;
import java.util.Map;
import java.util.concurrent.Semaphore;
import org.openpasture.core.framing.Framing;
import org.openpasture.core.framing.Splitter;
import org.openpasture.core.inlet.Source;
import org.openpasture.inlets.loop.Loop;
import org.openpasture.inlets.message.Condition;
import org.openpasture.inlets.message.MessageInlet;
import org.openpasture.inlets.message.MessageSink;

/**
 * A UDP port that bridges and devices send datagrams to; a datagram may hold several frames, but no frame goes on in
 * the next.
 */
public final class UdpPortInlet implements MessageInlet {
    private static final int LONGEST = 65_535;
    private static final int RECEIVE_BUFFER = 4 << 20;
    private static final int MOST_WAITING = 10_000;
    private final DatagramSocket socket;
    private final Framing framing;
    private final MessageSink sink;
    private final Semaphore room = new Semaphore(MOST_WAITING);
    private final Loop reader;
    private final DatagramPacket packet = new DatagramPacket(new byte[LONGEST], LONGEST);

    /**
     * Opens the port.
     *
     * @throws IOException in words, if it cannot be had
     */
    public UdpPortInlet(Source.UdpPort source, Framing framing, MessageSink sink) throws IOException {
        this.framing = framing;
        this.sink = sink;
        try {
            this.socket = new DatagramSocket(
                    source.bind() == null
                            ? new InetSocketAddress(source.port())
                            : new InetSocketAddress(InetAddress.getByName(source.bind()), source.port()));
            socket.setReceiveBufferSize(RECEIVE_BUFFER);
        } catch (SocketException e) {
            throw new IOException("UDP port " + source.port() + " cannot be opened: " + e.getMessage(), e);
        }
        sink.condition(Condition.UP, "Senders can reach it.");
        this.reader = Loop.onVirtualThread("udp-inlet-" + port(), this::read, problem -> {
                    if (problem.isEmpty()) {
                        sink.condition(Condition.UP, "Senders can reach it.");
                    } else {
                        sink.condition(Condition.DEGRADED, "A datagram could not be read: " + problem);
                    }
                })
                .start();
    }

    public int port() {
        return socket.getLocalPort();
    }

    @Override
    public String address() {
        return "UDP port " + port();
    }

    private void read() throws IOException {
        packet.setLength(LONGEST);
        socket.receive(packet);
        take(
                Arrays.copyOf(packet.getData(), packet.getLength()),
                packet.getAddress().getHostAddress() + ":" + packet.getPort());
    }

    private void take(byte[] datagram, String sender) {
        for (Splitter.Piece piece : framing.cut(datagram)) {
            switch (piece) {
                case Splitter.Piece.Whole(byte[] bytes, byte[] payload) -> {
                    if (room.tryAcquire()) {
                        sink.frame(bytes, payload, sender, Map.of()).whenComplete((done, error) -> room.release());
                    } else {
                        sink.lost(
                                bytes,
                                sender,
                                "too much comes at once: more than " + MOST_WAITING + " frames wait for the disk");
                    }
                }
                case Splitter.Piece.Lost(byte[] bytes, String reason) -> sink.lost(bytes, sender, reason);
            }
        }
    }

    @Override
    public void close() {
        reader.end();
        socket.close();
        reader.join();
    }
}
