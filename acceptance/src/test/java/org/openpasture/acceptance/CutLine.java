package org.openpasture.acceptance;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/** A line to a service over TCP that can be cut, as a network that is gone. */
public final class CutLine implements AutoCloseable {
    private final URI service;
    private final ServerSocket socket;
    private final Set<Socket> open = ConcurrentHashMap.newKeySet();

    public CutLine(URI service) throws IOException {
        this.service = service;
        this.socket = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
        Thread.ofVirtual().start(this::accept);
    }

    public URI address() {
        return URI.create("http://127.0.0.1:" + socket.getLocalPort() + "/");
    }

    private void accept() {
        try {
            while (true) {
                Socket near = socket.accept();
                Socket far = new Socket(service.getHost(), service.getPort());
                open.add(near);
                open.add(far);
                Thread.ofVirtual().start(() -> pass(near, far));
                Thread.ofVirtual().start(() -> pass(far, near));
            }
        } catch (IOException e) {
            // It was cut.
        }
    }

    private static void pass(Socket from, Socket to) {
        try (from;
                to;
                InputStream in = from.getInputStream();
                OutputStream out = to.getOutputStream()) {
            in.transferTo(out);
        } catch (IOException e) {
            // One of both has hung up, or the line was cut.
        }
    }

    /** Cuts it: what is open ends, and nobody gets through any more. */
    @Override
    public void close() throws IOException {
        socket.close();
        for (Socket one : open) {
            one.close();
        }
    }
}
