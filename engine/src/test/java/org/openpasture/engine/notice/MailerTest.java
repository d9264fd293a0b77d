package org.openpasture.engine.notice;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.api.setting.MailSettings;
import org.openpasture.store.registry.RegistryDatabase;
import org.openpasture.store.setting.SettingStore;

/** Mails over a real socket, to a server that says what it is told to say. */
class MailerTest {
    @TempDir
    Path folder;

    private RegistryDatabase database;
    private Mailer mailer;
    private ServerSocket server;
    private final List<String> heard = new CopyOnWriteArrayList<>();
    private String toRecipient = "250 fine";
    private String toData = "250 taken";

    @BeforeEach
    void open() throws IOException {
        database = RegistryDatabase.open(folder);
        server = new ServerSocket(0, 5, InetAddress.getLoopbackAddress());
        Thread.ofVirtual().start(this::serve);
        mailer = new Mailer(new SettingStore(database));
        mailer.save(new MailSettings("127.0.0.1", server.getLocalPort(), "alerts@farm.example", null, null, false));
    }

    @AfterEach
    void close() throws IOException {
        server.close();
        database.close();
    }

    private void serve() {
        while (!server.isClosed()) {
            try (Socket peer = server.accept();
                    BufferedReader in =
                            new BufferedReader(new InputStreamReader(peer.getInputStream(), StandardCharsets.UTF_8))) {
                say(peer, "220 mail.example");
                boolean body = false;
                for (String line = in.readLine(); line != null; line = in.readLine()) {
                    heard.add(line);
                    if (body) {
                        if (line.equals(".")) {
                            body = false;
                            say(peer, toData);
                        }
                        continue;
                    }
                    body = line.startsWith("DATA");
                    say(
                            peer,
                            body
                                    ? "354 go on"
                                    : line.startsWith("RCPT")
                                            ? toRecipient
                                            : line.startsWith("QUIT") ? "221 bye" : "250 fine");
                }
            } catch (IOException e) {
                // The next one.
            }
        }
    }

    private static void say(Socket peer, String line) throws IOException {
        peer.getOutputStream().write((line + "\r\n").getBytes(StandardCharsets.US_ASCII));
        peer.getOutputStream().flush();
    }

    private static final Mail MAIL = new Mail(
            "r-1/raised/ann",
            "r-1",
            "ann@farm.example",
            "|=| warning",
            "Pump 6.4 mm/s\n\nLimit: < 5 & more\nhttps://farm.example/alerts/r-1\n");

    @Test
    void aMachineWroteItAndAllOfAnAlertStandTogether() {
        assertThat(mailer.send(MAIL)).isEmpty();
        assertThat(mailer.send(new Mail("r-1/over/ann", "r-1", "ann@farm.example", "| | back", "Pump")))
                .isEmpty();
        assertThat(heard)
                .contains("Auto-Submitted: auto-generated", "List-Id: Alerts of Open Pasture <alerts.farm.example>");
        assertThat(heard.stream().filter(line -> line.startsWith("References:")).distinct())
                .hasSize(1);
        assertThat(heard.stream().filter(line -> line.startsWith("Message-ID:")).distinct())
                .hasSize(2);
        assertThat(heard).anyMatch(line -> line.contains("text/plain")).anyMatch(line -> line.contains("text/html"));
        assertThat(String.join("\n", heard))
                .contains("<a href=\"https://farm.example/alerts/r-1\">", "Limit: &lt; 5 &amp; more");
    }

    /** A mailbox that does not exist will not exist in an hour either. */
    @Test
    void aMailboxThatDoesNotExistIsFinalInTheServersWords() {
        toRecipient = "550 5.1.1 no such person here";
        assertThat(mailer.send(MAIL)).hasValueSatisfying(failure -> {
            assertThat(failure.isFinal()).isTrue();
            assertThat(failure.reason()).isEqualTo("127.0.0.1 refuses it: 550 5.1.1 no such person here");
        });
    }

    @Test
    void whatTheServerPutsOffIsTriedAgain() {
        toRecipient = "451 4.7.1 greylisted, try again later";
        assertThat(mailer.send(MAIL)).hasValueSatisfying(failure -> {
            assertThat(failure.isFinal()).isFalse();
            assertThat(failure.reason()).contains("451 4.7.1 greylisted");
        });
        toRecipient = "250 fine";
        toData = "554 5.7.1 looks like spam";
        assertThat(mailer.send(MAIL))
                .hasValueSatisfying(failure -> assertThat(failure.isFinal()).isTrue());
    }

    @Test
    void aServerThatIsAwayIsTriedAgain() throws IOException {
        int port;
        try (ServerSocket nobody = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            port = nobody.getLocalPort();
        }
        mailer.save(new MailSettings("127.0.0.1", port, "alerts@farm.example", null, null, false));
        assertThat(mailer.send(MAIL)).hasValueSatisfying(failure -> {
            assertThat(failure.isFinal()).isFalse();
            assertThat(failure.reason()).contains("nothing answers at 127.0.0.1");
        });
    }
}
