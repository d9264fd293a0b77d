package org.openpasture.acceptance;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.junit.jupiter.api.extension.AfterAllCallback;
import org.junit.jupiter.api.extension.BeforeAllCallback;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.openpasture.api.people.SessionView;
import org.openpasture.api.people.SignInRequest;
import org.openpasture.client.http.ApiClient;
import org.openpasture.engine.radio.GatewayIntake;
import org.openpasture.engine.radio.StationPort;
import org.openpasture.service.PastureService;
import org.openpasture.simulator.host.ServiceProcess;
import org.openpasture.simulator.radio.SimulatedGateway;
import org.springframework.boot.SpringApplication;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.util.FileSystemUtils;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;

/** The real service on loopback with an empty data folder and free ports, for the tests of one class. */
public final class RunningService implements BeforeAllCallback, AfterAllCallback {
    public static final String SETUP_CODE = "TEST-CODE-26";
    public static final String PASSWORD = "a long password";

    private final List<String> options = new ArrayList<>();
    private final List<SimulatedGateway> gateways = new ArrayList<>();
    private Path data = Path.of("");
    private ConfigurableApplicationContext context;
    private ApiClient owner;
    private int mqttPort = -1;
    private String address = "";

    @Override
    public void beforeAll(ExtensionContext test) throws IOException {
        data = Files.createTempDirectory("pasture");
        start();
        anonymous()
                .post(
                        "api/v1/setup",
                        Map.of(
                                "code",
                                SETUP_CODE,
                                "name",
                                "owner",
                                "email",
                                "owner@pasture.example",
                                "password",
                                PASSWORD));
        owner = signIn("owner");
    }

    @Override
    public void afterAll(ExtensionContext test) throws IOException {
        stop();
        FileSystemUtils.deleteRecursively(data);
    }

    public void start() {
        List<String> all = new ArrayList<>(options);
        all.addAll(List.of(
                "--pasture.data=" + data,
                "--server.port=0",
                "--server.address=127.0.0.1",
                "--pasture.radio.port=0",
                "--pasture.radio.station-port=0",
                "--pasture.radio.bind=127.0.0.1",
                "--pasture.setup-code=" + SETUP_CODE,
                "--pasture.mqtt.port=" + mqttPort,
                "--pasture.address=" + address));
        context = SpringApplication.run(PastureService.class, all.toArray(String[]::new));
    }

    /** The same with an address that others reach it by, as messages need it. */
    public RunningService reachedAt(String url) {
        address = url;
        return this;
    }

    /** The same with an option of the service. */
    public RunningService with(String option) {
        options.add(option);
        return this;
    }

    /** The same with the broker inside, which most tests do not need. */
    public RunningService withBroker() {
        try {
            mqttPort = ServiceProcess.freePort();
            return this;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Where the broker inside listens. */
    public int mqttPort() {
        return mqttPort;
    }

    public void stop() {
        gateways.forEach(SimulatedGateway::close);
        gateways.clear();
        context.close();
    }

    /** Stops it and starts it again with the same records; its ports are other ones then. */
    public void restart() {
        stop();
        start();
        owner = signIn("owner");
    }

    public Path data() {
        return data;
    }

    public URI address() {
        return URI.create("http://127.0.0.1:"
                + Objects.requireNonNull(context.getEnvironment().getProperty("local.server.port")) + "/");
    }

    public InetSocketAddress radio() {
        return new InetSocketAddress(
                "127.0.0.1", context.getBean(GatewayIntake.class).port().orElseThrow());
    }

    public int stationPort() {
        return context.getBean(StationPort.class).port().orElseThrow();
    }

    /** A simulated gateway that speaks to this service and is closed with it. */
    public SimulatedGateway gateway(String eui) {
        try {
            SimulatedGateway gateway = new SimulatedGateway(eui, radio());
            gateways.add(gateway);
            return gateway;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Every address of the API: its pattern with the method that is used on it. */
    public List<Map.Entry<String, String>> addresses() {
        return context
                .getBean("requestMappingHandlerMapping", RequestMappingHandlerMapping.class)
                .getHandlerMethods()
                .keySet()
                .stream()
                .flatMap(mapping -> mapping.getPatternValues().stream()
                        .filter(pattern -> pattern.startsWith("/api/v1/"))
                        .flatMap(pattern -> mapping.getMethodsCondition().getMethods().stream()
                                .map(method -> Map.entry(method.name(), pattern))))
                .sorted(Map.Entry.<String, String>comparingByValue().thenComparing(Map.Entry.comparingByKey()))
                .distinct()
                .toList();
    }

    public ApiClient anonymous() {
        return new ApiClient(address(), null);
    }

    public ApiClient owner() {
        return owner;
    }

    /** Signs somebody in whose password is {@link #PASSWORD}. */
    public ApiClient signIn(String name) {
        SessionView session =
                anonymous().post("api/v1/session", new SignInRequest(name, PASSWORD, "test"), SessionView.class);
        return anonymous().withToken(Objects.requireNonNull(session.token()));
    }
}
