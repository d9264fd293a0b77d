package org.openpasture.inlets.broker;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The broker inside, with mosquitto's clients. */
class BrokerTest {
    private static final List<String> CAME = new CopyOnWriteArrayList<>();
    /** Whose account is gone. */
    private static final Set<String> LEFT = ConcurrentHashMap.newKeySet();

    private static volatile boolean diskFull;
    private static Broker broker;
    private static int port;

    @BeforeAll
    static void start(@TempDir Path folder) throws Exception {
        try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            port = free.getLocalPort();
        }
        broker = new Broker(
                new Broker.Settings(folder, "127.0.0.1", port, -1, null, null),
                (name, password, source) -> password.equals("secret") && !LEFT.contains(name)
                        ? Optional.of(new Sender(name))
                        : Optional.empty());
    }

    @AfterAll
    static void stop() {
        broker.close();
    }

    private record Sender(String key) implements BrokerGuard.Member {
        @Override
        public boolean isWelcome() {
            return !LEFT.contains(key);
        }

        @Override
        public boolean mayReceive(String topic) {
            return !topic.endsWith("/hushed");
        }

        @Override
        public boolean mayPublish(String topic) {
            return topic.startsWith("farm/");
        }

        @Override
        public boolean maySubscribe(String filter) {
            return filter.startsWith("farm/");
        }

        @Override
        public CompletableFuture<?> published(String topic, byte[] payload) {
            if (diskFull) {
                return CompletableFuture.failedFuture(new IllegalStateException("full"));
            }
            return CompletableFuture.runAsync(
                    () -> CAME.add(topic + " " + new String(payload, StandardCharsets.UTF_8)));
        }
    }

    /** What mosquitto_pub says, after its exit status. */
    private static String publish(String... more) throws Exception {
        List<String> command = new ArrayList<>(List.of(
                "mosquitto_pub", "-h", "127.0.0.1", "-p", Integer.toString(port), "-u", "mast", "-P", "secret"));
        command.addAll(List.of(more));
        Process client = new ProcessBuilder(command).redirectErrorStream(true).start();
        String said = new String(client.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        return client.waitFor() + " " + said.strip();
    }

    @ParameterizedTest
    @CsvSource({"mqttv311, 0", "mqttv311, 1", "mqttv311, 2", "mqttv5, 0", "mqttv5, 1", "mqttv5, 2"})
    void whatIsPublishedIsKeptBeforeItIsAcknowledged(String version, String qos) throws Exception {
        String topic = "farm/" + version + "/" + qos;
        assertThat(publish("-V", version, "-q", qos, "-t", topic, "-m", "8.4")).isEqualTo("0 ");
        if (!qos.equals("0")) {
            assertThat(CAME).contains(topic + " 8.4");
        }
    }

    @Test
    void whoeverIsNobodyAndWhateverIsNotHisIsRefused() throws Exception {
        assertThat(publish("-V", "mqttv5", "-q", "1", "-t", "other/x", "-m", "1"))
                .containsIgnoringCase("not authorized");
        assertThat(publish("-P", "wrong", "-t", "farm/x", "-m", "1")).containsIgnoringCase("not authorised");
        assertThat(publish("--will-topic", "other/x", "--will-payload", "gone", "-t", "farm/x", "-m", "1"))
                .containsIgnoringCase("not authorised");
        assertThat(CAME).noneMatch(one -> one.startsWith("other"));
    }

    @Test
    void whatCannotBeKeptIsRefused() throws Exception {
        diskFull = true;
        try {
            assertThat(publish("-V", "mqttv5", "-q", "1", "-t", "farm/full", "-m", "1"))
                    .containsIgnoringCase("unspecified error");
            assertThat(CAME).noneMatch(one -> one.startsWith("farm/full"));
        } finally {
            diskFull = false;
        }
    }

    private static Process subscribe(String who, String client, String... more) throws IOException {
        List<String> command = new ArrayList<>(List.of(
                "mosquitto_sub",
                "-h",
                "127.0.0.1",
                "-p",
                Integer.toString(port),
                "-u",
                who,
                "-P",
                "secret",
                "-V",
                "mqttv5",
                "-i",
                client,
                "-t",
                "farm/#"));
        command.addAll(List.of(more));
        return new ProcessBuilder(command).redirectErrorStream(true).start();
    }

    /** The name of a client is theirs who connected by it first: nobody else takes its place, or what waits for it. */
    @Test
    void aClientsNameBelongsToWhoMadeIt() throws Exception {
        Process kept = subscribe("mast", "office", "-q", "1", "-c", "-x", "3600", "-E");
        assertThat(kept.waitFor()).isZero();
        publish("-q", "1", "-t", "farm/kept", "-m", "for the office");
        Process other = subscribe("barn", "office", "-q", "1", "-c", "-x", "3600", "-W", "2");
        assertThat(new String(other.getInputStream().readAllBytes(), StandardCharsets.UTF_8))
                .doesNotContain("for the office")
                .containsIgnoringCase("client identifier not valid");
        Process again = subscribe("mast", "office", "-q", "1", "-c", "-x", "3600", "-C", "1", "-W", "10");
        assertThat(new String(again.getInputStream().readAllBytes(), StandardCharsets.UTF_8).strip())
                .isEqualTo("for the office");
    }

    /** A subscription is no right: what may not be handed on now is not, and whose account goes is cut off. */
    @Test
    void aSubscriberGetsWhatHeMayHaveAsLongAsHeIsWelcome() throws Exception {
        Process guest = subscribe("guest", "guest", "-q", "1");
        BufferedReader said = new BufferedReader(new InputStreamReader(guest.getInputStream(), StandardCharsets.UTF_8));
        publish("--repeat", "20", "--repeat-delay", "0.1", "-q", "1", "-t", "farm/open", "-m", "open");
        assertThat(said.readLine()).isEqualTo("open");
        publish("-q", "1", "-t", "farm/hushed", "-m", "hushed");
        publish("-q", "1", "-t", "farm/open", "-m", "last");
        assertThat(said.lines().takeWhile(line -> !line.equals("last"))).doesNotContain("hushed");
        LEFT.add("guest");
        assertThat(guest.waitFor(15, TimeUnit.SECONDS)).as("cut off").isTrue();
    }

    /** mosquitto_sub is killed amid its connection: what it left as its will comes like a message. */
    @Test
    void lastWillsComeWhenTheConnectionBreaks() throws Exception {
        Process device = new ProcessBuilder(
                        "mosquitto_sub",
                        "-h",
                        "127.0.0.1",
                        "-p",
                        Integer.toString(port),
                        "-u",
                        "mast",
                        "-P",
                        "secret",
                        "-t",
                        "farm/orders",
                        "--will-topic",
                        "farm/state",
                        "--will-payload",
                        "gone")
                .start();
        await().atMost(10, TimeUnit.SECONDS).until(() -> broker.connected() == 1);
        device.destroyForcibly();
        await().atMost(10, TimeUnit.SECONDS).until(() -> CAME.contains("farm/state gone"));
        assertThat(broker.connected()).isZero();
    }

    @Test
    void whatWePublishRetainedIsThereForWhoeverComesLater() throws Exception {
        broker.publish("farm/level", "4.2".getBytes(StandardCharsets.UTF_8), true)
                .get(5, TimeUnit.SECONDS);
        Process late = new ProcessBuilder(
                        "mosquitto_sub",
                        "-h",
                        "127.0.0.1",
                        "-p",
                        Integer.toString(port),
                        "-u",
                        "mast",
                        "-P",
                        "secret",
                        "-t",
                        "farm/level",
                        "-C",
                        "1",
                        "-W",
                        "5")
                .start();
        assertThat(new String(late.getInputStream().readAllBytes(), StandardCharsets.UTF_8).strip())
                .isEqualTo("4.2");
    }
}
