package org.openpasture.bench;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.openpasture.api.people.SessionView;
import org.openpasture.api.people.SignInRequest;
import org.openpasture.client.http.ApiClient;

/** The service as people run it: a process of its own, with its own records. */
final class ServiceProcess implements AutoCloseable {
  static final String CODE = "BENCH-CODE";
  static final String PASSWORD = "a long password";
  private static final int PORT = 8580;
  static final int RADIO_PORT = 8581;

  private final Process process;
  private final Path data;
  private final Duration untilReady;

  private ServiceProcess(Process process, Path data, Duration untilReady) {
    this.process = process;
    this.data = data;
    this.untilReady = untilReady;
  }

  /** Starts it and waits until gateways can reach it. */
  static ServiceProcess start(Path app, boolean quick, String... jvmOptions) throws IOException {
    Path data = Files.createTempDirectory("pasture-bench");
    List<String> command = new ArrayList<>(List.of(Path.of(System.getProperty("java.home"), "bin", "java").toString(), "--enable-native-access=ALL-UNNAMED"));
    if (quick) {
      command.addAll(List.of("-XX:AOTCache=" + app.resolve("service.aot"), "-XX:AOTMode=auto", "-Xlog:aot*=off", "-Xlog:cds=off"));
    }
    command.addAll(List.of(jvmOptions));
    command.addAll(List.of("-jar", app.resolve("service.jar").toString(), "--pasture.data=" + data, "--server.port=" + PORT, "--server.address=127.0.0.1",
        "--pasture.radio.port=" + RADIO_PORT, "--pasture.radio.bind=127.0.0.1", "--pasture.setup-code=" + CODE));
    long begun = System.nanoTime();
    Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
    BufferedReader log = new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8));
    for (String line = log.readLine(); line != null; line = log.readLine()) {
      if (line.contains("Gateways are heard")) {
        Duration took = Duration.ofNanos(System.nanoTime() - begun);
        drain(log);
        return new ServiceProcess(process, data, took);
      }
    }
    throw new IllegalStateException("the service did not start");
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

  Duration untilReady() {
    return untilReady;
  }

  URI address() {
    return URI.create("http://127.0.0.1:" + PORT + "/");
  }

  /** Makes the owner and signs in. */
  ApiClient owner() {
    ApiClient anonymous = new ApiClient(address(), null);
    anonymous.post("api/v1/setup", Map.of("code", CODE, "name", "owner", "password", PASSWORD));
    SessionView session = anonymous.post("api/v1/session", new SignInRequest("owner", PASSWORD, "bench"), SessionView.class);
    return anonymous.withToken(Objects.requireNonNull(session.token()));
  }

  /** Resident memory in MB, by the kernel. */
  long residentMegabytes() throws IOException {
    return Files.readAllLines(Path.of("/proc/" + process.pid() + "/status")).stream().filter(line -> line.startsWith("VmRSS:"))
        .mapToLong(line -> Long.parseLong(line.replaceAll("\\D", "")) / 1024).findFirst().orElseThrow();
  }

  @Override
  public void close() throws IOException {
    process.destroy();
    try {
      process.waitFor(15, TimeUnit.SECONDS);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    try (Stream<Path> files = Files.walk(data)) {
      for (Path file : files.sorted(Comparator.reverseOrder()).toList()) {
        Files.deleteIfExists(file);
      }
    }
  }
}
