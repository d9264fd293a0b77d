package org.openpasture.inlets.stream;

import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.time.Duration;
import java.util.Arrays;
import java.util.Comparator;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.openpasture.core.framing.Framing;
import org.openpasture.core.inlet.Source;
import org.openpasture.inlets.loop.Loop;
import org.openpasture.inlets.message.Condition;
import org.openpasture.inlets.message.Hose;
import org.openpasture.inlets.message.MessageInlet;
import org.openpasture.inlets.message.MessageSink;

/**
 * A TCP port that bridges and devices connect to. Each connection is read on a virtual thread of its own, so that a
 * slow one holds up nobody; when there are too many, the one that was silent longest has to go.
 */
public final class TcpPortInlet implements MessageInlet {
    private static final int MOST_CONNECTIONS = 500;
    private static final int CHUNK = 8_192;
    /** After so long without a byte, a frame that is not complete never will be. */
    private static final Duration PAUSE = Duration.ofSeconds(5);

    private final ServerSocket server;
    private final Framing framing;
    private final MessageSink sink;
    /** When each connection brought something last, by System.nanoTime(). */
    private final Map<Socket, Long> connections = new ConcurrentHashMap<>();

    private final Loop acceptor;

    /**
     * Opens the port.
     *
     * @throws IOException in words, if it cannot be had
     */
    public TcpPortInlet(Source.TcpPort source, Framing framing, MessageSink sink) throws IOException {
        this.framing = framing;
        this.sink = sink;
        this.server = new ServerSocket();
        try {
            server.setReuseAddress(true);
            server.bind(
                    source.bind() == null
                            ? new InetSocketAddress(source.port())
                            : new InetSocketAddress(InetAddress.getByName(source.bind()), source.port()));
        } catch (IOException e) {
            server.close();
            throw new IOException("TCP port " + source.port() + " cannot be opened: " + e.getMessage(), e);
        }
        tell();
        this.acceptor = Loop.onVirtualThread("tcp-inlet-" + port(), this::accept, problem -> {
                    if (problem.isEmpty()) {
                        tell();
                    } else {
                        sink.condition(Condition.DEGRADED, "A connection could not be taken: " + problem);
                    }
                })
                .start();
    }

    public int port() {
        return server.getLocalPort();
    }

    @Override
    public String address() {
        return "TCP port " + port();
    }

    private void tell() {
        int count = connections.size();
        sink.condition(
                Condition.UP,
                count == 0
                        ? "Nobody is connected."
                        : count == 1 ? "1 sender is connected." : count + " senders are connected.");
    }

    private void accept() throws IOException {
        Socket socket = server.accept();
        try {
            socket.setSoTimeout((int) PAUSE.toMillis());
            socket.setKeepAlive(true);
        } catch (IOException e) {
            socket.close();
            throw e;
        }
        if (connections.size() >= MOST_CONNECTIONS) {
            connections.entrySet().stream()
                    .min(Comparator.comparingLong(Map.Entry::getValue))
                    .ifPresent(oldest -> drop(oldest.getKey()));
        }
        connections.put(socket, System.nanoTime());
        tell();
        Thread.ofVirtual().name("tcp-inlet-" + port() + "-" + socket.getPort()).start(() -> read(socket));
    }

    private void drop(Socket socket) {
        connections.remove(socket);
        try {
            socket.close();
        } catch (IOException e) {
            // It is gone, which was wanted.
        }
    }

    private void read(Socket socket) {
        String sender = socket.getInetAddress().getHostAddress() + ":" + socket.getPort();
        Hose hose = new Hose(framing, sink, sender);
        try (socket) {
            InputStream in = socket.getInputStream();
            byte[] chunk = new byte[CHUNK];
            while (true) {
                int count;
                try {
                    count = in.read(chunk);
                } catch (SocketTimeoutException e) {
                    hose.pause();
                    continue;
                }
                if (count < 0) {
                    break;
                }
                connections.computeIfPresent(socket, (key, was) -> System.nanoTime());
                hose.feed(Arrays.copyOf(chunk, count));
            }
            hose.pause();
        } catch (IOException e) {
            // The other side is gone, or the inlet is being closed.
        } catch (RuntimeException e) {
            // The sender connects anew; the others are not concerned.
            sink.lost(new byte[0], sender, "what it sent could not be taken: " + e.getMessage());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } finally {
            connections.remove(socket);
            if (!server.isClosed()) {
                tell();
            }
        }
    }

    @Override
    public void close() {
        acceptor.end();
        try {
            server.close();
        } catch (IOException e) {
            // It is closed, which was wanted.
        }
        connections.keySet().forEach(this::drop);
        acceptor.join();
    }
}
