package org.openpasture.inlets.camera;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import org.junit.jupiter.api.Test;

/** What cameras do that somebody waits for. */
class CameraReaderTest {
    private static final String BEGUN = "HTTP/1.1 200 OK\r\nContent-Type: image/jpeg\r\nContent-Length: %d\r\n\r\n";

    /** Answers each connection with some bytes, and then keeps it open. */
    private static ServerSocket answering(byte[] answer) throws IOException {
        ServerSocket listening = new ServerSocket(0, 5, InetAddress.getLoopbackAddress());
        Thread.ofVirtual().start(() -> {
            while (!listening.isClosed()) {
                try {
                    Socket open = listening.accept();
                    OutputStream out = open.getOutputStream();
                    out.write(answer);
                    out.flush();
                } catch (IOException e) {
                    return;
                }
            }
        });
        return listening;
    }

    private static byte[] read(ServerSocket from, Duration within) throws Exception {
        return new CameraReader(within)
                .read(URI.create("http://127.0.0.1:" + from.getLocalPort() + "/x.jpg"), null, "");
    }

    @Test
    void givesWhatTheCameraGives() throws Exception {
        byte[] answer = (BEGUN.formatted(3) + "abc").getBytes(StandardCharsets.UTF_8);
        try (ServerSocket camera = answering(answer)) {
            assertThat(read(camera, Duration.ofSeconds(20))).containsExactly('a', 'b', 'c');
        }
    }

    @Test
    void aCameraThatStallsIsNotWaitedForLongerThanSaid() throws Exception {
        byte[] half = (BEGUN.formatted(1_000) + "half").getBytes(StandardCharsets.UTF_8);
        for (byte[] answer : new byte[][] {{}, half}) {
            try (ServerSocket camera = answering(answer)) {
                assertThatThrownBy(() -> read(camera, Duration.ofSeconds(1)))
                        .isInstanceOf(IOException.class)
                        .hasMessageContaining("127.0.0.1");
            }
        }
    }

    @Test
    void moreThanAPictureIsCutOff() throws Exception {
        byte[] answer = new byte[10_000_100];
        byte[] begin = BEGUN.formatted(20_000_000).getBytes(StandardCharsets.UTF_8);
        System.arraycopy(begin, 0, answer, 0, begin.length);
        try (ServerSocket camera = answering(answer)) {
            assertThatThrownBy(() -> read(camera, Duration.ofSeconds(20)))
                    .hasMessageContaining("answers with more than 10000000 bytes");
        }
    }
}
