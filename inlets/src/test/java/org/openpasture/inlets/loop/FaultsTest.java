package org.openpasture.inlets.loop;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.OutputStream;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.Test;
import org.openpasture.core.framing.Framing;
import org.openpasture.core.inlet.Source;
import org.openpasture.inlets.fetch.HttpFetcher;
import org.openpasture.inlets.message.Condition;
import org.openpasture.inlets.message.MessageSink;
import org.openpasture.inlets.reach.Reach;
import org.openpasture.inlets.stream.TcpPortInlet;
import org.openpasture.inlets.stream.UdpPortInlet;

/** Each loop over sockets goes on when what takes its messages fails, in whichever way, and says how it is. */
class FaultsTest {
    private final Taker taker = new Taker();

    /** Fails three times in ways that are no answer, then takes. */
    private static final class Taker implements MessageSink {
        private final List<String> taken = new CopyOnWriteArrayList<>();
        private final List<String> said = new CopyOnWriteArrayList<>();
        private int calls;

        @Override
        public synchronized CompletableFuture<?> frame(
                byte[] whole, byte[] payload, String sender, Map<String, String> names) {
            calls++;
            return switch (calls) {
                case 1 -> throw new IllegalStateException("the record store is closed");
                case 2 -> CompletableFuture.failedFuture(new IllegalStateException("the disk is full"));
                case 3 -> throw new NullPointerException();
                default -> {
                    taken.add(new String(payload, StandardCharsets.UTF_8));
                    yield CompletableFuture.completedFuture(null);
                }
            };
        }

        @Override
        public void lost(byte[] bytes, String sender, String reason) {
            said.add(reason);
        }

        @Override
        public void condition(Condition condition, String words) {
            said.add(words);
        }
    }

    @Test
    void datagrams() throws IOException {
        try (UdpPortInlet inlet =
                        new UdpPortInlet(new Source.UdpPort(0, "127.0.0.1"), new Framing.Lines(null, null), taker);
                DatagramSocket sender = new DatagramSocket()) {
            await().atMost(Duration.ofSeconds(20)).until(() -> {
                byte[] bytes = "hello\n".getBytes(StandardCharsets.UTF_8);
                sender.send(new DatagramPacket(
                        bytes, bytes.length, new InetSocketAddress(InetAddress.getLoopbackAddress(), inlet.port())));
                return taker.taken.contains("hello");
            });
            assertThat(taker.said).anyMatch(words -> words.contains("the record store is closed"));
            await().until(() -> taker.said.getLast().contains("reach it"));
        }
    }

    @Test
    void connections() throws IOException {
        try (TcpPortInlet inlet =
                new TcpPortInlet(new Source.TcpPort(0, "127.0.0.1"), new Framing.Lines(null, null), taker)) {
            await().atMost(Duration.ofSeconds(20)).until(() -> {
                try (Socket sender = new Socket(InetAddress.getLoopbackAddress(), inlet.port());
                        OutputStream out = sender.getOutputStream()) {
                    out.write("hello\n".getBytes(StandardCharsets.UTF_8));
                }
                return taker.taken.contains("hello");
            });
        }
    }

    @Test
    void fetching() throws IOException {
        HttpServer server = HttpServer.create(new InetSocketAddress("127.0.0.1", 0), 0);
        server.createContext("/", exchange -> {
            byte[] bytes = "hello".getBytes(StandardCharsets.UTF_8);
            exchange.sendResponseHeaders(200, bytes.length);
            exchange.getResponseBody().write(bytes);
            exchange.close();
        });
        server.start();
        URI url = URI.create("http://127.0.0.1:" + server.getAddress().getPort() + "/");
        try (HttpFetcher fetcher = new HttpFetcher(
                new Source.HttpFetch(url, 1, true), Map.of(), Reach.ANYWHERE, new Framing.Whole(), taker)) {
            await().atMost(Duration.ofSeconds(20)).until(() -> taker.taken.contains("hello"));
            assertThat(fetcher.address()).contains("127.0.0.1");
        } finally {
            server.stop(0);
        }
    }
}
