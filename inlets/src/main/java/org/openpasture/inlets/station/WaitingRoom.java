package org.openpasture.inlets.station;

import java.io.IOException;
import java.nio.channels.ByteChannel;
import java.nio.channels.SelectionKey;
import java.nio.channels.SocketChannel;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicReference;
import org.java_websocket.WebSocket;
import org.java_websocket.WebSocketAdapter;
import org.java_websocket.WebSocketImpl;
import org.java_websocket.WebSocketServerFactory;
import org.java_websocket.drafts.Draft;
import org.java_websocket.framing.CloseFrame;

/**
 * Makes connections, and ends those whose handshake is not done: there are only so many of them, and none stays for
 * long. Any thread.
 */
final class WaitingRoom implements WebSocketServerFactory {
    static final Duration PATIENCE = Duration.ofSeconds(10);
    private static final int MOST = 500;
    private final WebSocketServerFactory makes;
    /** With when each came, by {@link System#nanoTime()}. */
    private final Map<WebSocketImpl, Long> waiting = new ConcurrentHashMap<>();

    /** @param makes the connections, encrypted or not */
    WaitingRoom(WebSocketServerFactory makes) {
        this.makes = makes;
    }

    boolean isFull() {
        return waiting.size() >= MOST;
    }

    /** The handshake is done, or the connection has ended. */
    void left(WebSocket connection) {
        waiting.remove(connection);
    }

    /** Ends the connections that were here for longer than a handshake takes. */
    void sweep() {
        long now = System.nanoTime();
        waiting.forEach((connection, since) -> {
            if (now - since > PATIENCE.toNanos()) {
                waiting.remove(connection);
                connection.closeConnection(CloseFrame.NEVER_CONNECTED, "no handshake in time");
            }
        });
    }

    @Override
    public WebSocketImpl createWebSocket(WebSocketAdapter adapter, Draft draft) {
        return createWebSocket(adapter, List.of(draft));
    }

    /** Whatever the server would speak, its connections here speak the protocol with our limits. */
    @Override
    public WebSocketImpl createWebSocket(WebSocketAdapter adapter, List<Draft> ignored) {
        AtomicReference<WebSocketImpl> made = new AtomicReference<>();
        WebSocketImpl connection =
                (WebSocketImpl) makes.createWebSocket(adapter, List.<Draft>of(new StationDraft(() -> made.get()
                        .closeConnection(CloseFrame.TOOBIG, "the request is longer than a station's"))));
        made.set(connection);
        waiting.put(connection, System.nanoTime());
        return connection;
    }

    @Override
    public ByteChannel wrapChannel(SocketChannel channel, SelectionKey key) throws IOException {
        return makes.wrapChannel(channel, key);
    }

    @Override
    public void close() {
        makes.close();
    }
}
