package org.openpasture.simulator.host;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.openpasture.api.people.SessionView;
import org.openpasture.client.http.ApiClient;

/** The service as a process of its own on loopback, for tests and measurements; it can be killed without warning. */
public final class ServiceProcess implements AutoCloseable {
    public static final String SETUP_CODE = "TEST-CODE-26";
    public static final String PASSWORD = "a long password";

    private static final Pattern STATIONS = Pattern.compile("Stations are heard on port (\\d+)");

    private final Process process;
    private final int port;
    private final int radioPort;
    private final int stationPort;
    private final Duration untilReady;

    private ServiceProcess(Process process, int port, int radioPort, int stationPort, Duration untilReady) {
        this.process = process;
        this.port = port;
        this.radioPort = radioPort;
        this.stationPort = stationPort;
        this.untilReady = untilReady;
    }

    /** A TCP port of this machine that nobody listens at now. */
    public static int freePort() throws IOException {
        try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            return free.getLocalPort();
        }
    }

    /** The Java of this process. */
    public static String java() {
        return Path.of(System.getProperty("java.home"), "bin", "java").toString();
    }

    /**
     * Starts it on free ports and waits until gateways can reach it.
     *
     * @param launch the command up to the service's own options
     * @throws IllegalStateException with what it said, if it ended instead
     */
    public static ServiceProcess start(List<String> launch, Path data) throws IOException {
        return start(launch, data, -1);
    }

    /** The same with the MQTT broker inside at a port. */
    public static ServiceProcess start(List<String> launch, Path data, int mqttPort) throws IOException {
        int port;
        int radioPort;
        try (ServerSocket tcp = new ServerSocket(0);
                DatagramSocket udp = new DatagramSocket(0)) {
            port = tcp.getLocalPort();
            radioPort = udp.getLocalPort();
        }
        Files.createDirectories(data);
        List<String> command = new ArrayList<>(launch);
        command.addAll(List.of(
                "--pasture.data=" + data,
                "--server.port=" + port,
                "--server.address=127.0.0.1",
                "--pasture.radio.port=" + radioPort,
                "--pasture.radio.station-port=0",
                "--pasture.mqtt.port=" + mqttPort,
                "--pasture.radio.bind=127.0.0.1",
                "--pasture.setup-code=" + SETUP_CODE));
        long begun = System.nanoTime();
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        BufferedReader log =
                new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8));
        StringBuilder said = new StringBuilder();
        int stationPort = 0;
        for (String line = log.readLine(); line != null; line = log.readLine()) {
            said.append(line).append('\n');
            Matcher station = STATIONS.matcher(line);
            stationPort = station.find() ? Integer.parseInt(station.group(1)) : stationPort;
            if (line.contains("Gateways are heard")) {
                Duration took = Duration.ofNanos(System.nanoTime() - begun);
                drain(log);
                return new ServiceProcess(process, port, radioPort, stationPort, took);
            }
        }
        throw new IllegalStateException("the service did not start:\n" + said);
    }

    /** A service whose log nobody reads would stop when the pipe is full. */
    private static void drain(BufferedReader log) {
        Thread.ofVirtual().start(() -> {
            try {
                while (log.readLine() != null) {
                    // Read only so that it can go on.
                }
            } catch (IOException e) {
                // The process has ended.
            }
        });
    }

    /** From the start of the process until gateways could reach it. */
    public Duration untilReady() {
        return untilReady;
    }

    public URI address() {
        return URI.create("http://127.0.0.1:" + port + "/");
    }

    /** Where it hears gateways. */
    public InetSocketAddress radio() {
        return new InetSocketAddress("127.0.0.1", radioPort);
    }

    /** Where it hears stations. */
    public int stationPort() {
        return stationPort;
    }

    /** Makes the owner at the first visit. */
    public ApiClient owner() {
        new ApiClient(address(), null)
                .post("api/v1/setup", Map.of("code", SETUP_CODE, "name", "owner", "password", PASSWORD));
        return signIn("owner");
    }

    /** Signs somebody in whose password is {@link #PASSWORD}. */
    public ApiClient signIn(String name) {
        ApiClient anonymous = new ApiClient(address(), null);
        SessionView session = anonymous.post(
                "api/v1/session", Map.of("name", name, "password", PASSWORD, "client", "test"), SessionView.class);
        return anonymous.withToken(Objects.requireNonNull(session.token()));
    }

    /** Resident memory in MB, by the kernel. */
    public long residentMegabytes() throws IOException {
        return Files.readAllLines(Path.of("/proc/" + process.pid() + "/status")).stream()
                .filter(line -> line.startsWith("VmRSS:"))
                .mapToLong(line -> Long.parseLong(line.replaceAll("\\D", "")) / 1024)
                .findFirst()
                .orElseThrow();
    }

    /** As a power cut would. */
    public void kill() throws InterruptedException {
        process.destroyForcibly().waitFor();
    }

    /** Asks it to end, and waits. */
    @Override
    public void close() throws IOException {
        process.destroy();
        try {
            if (!process.waitFor(15, TimeUnit.SECONDS)) {
                throw new IOException("the service did not end when it was asked to");
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
