package org.openpasture.acceptance.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.acceptance.BuiltService;
import org.openpasture.api.alert.AlertAnswer;
import org.openpasture.api.fleet.DeviceView;
import org.openpasture.api.place.PointView;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.limit.Severity;
import org.openpasture.simulator.host.ServiceProcess;

/** The demo as it is played: service and player are processes of their own, and speak over loopback only. */
class DemoStoryTest {
    @TempDir
    private Path folder;

    private static String page(int port) {
        try {
            return HttpClient.newHttpClient()
                    .send(
                            HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + "/"))
                                    .build(),
                            HttpResponse.BodyHandlers.ofString())
                    .body();
        } catch (java.io.IOException | InterruptedException e) {
            return "";
        }
    }

    @Test
    void theCouplingWorksLooseIsAlertedMailedAndRepairedWithinAFewMinutes() throws Exception {
        int mailbox = ServiceProcess.freePort();
        try (ServiceProcess service = BuiltService.start(folder.resolve("data"))) {
            Process player = new ProcessBuilder(List.of(
                            ServiceProcess.java(),
                            "-cp",
                            System.getProperty("java.class.path"),
                            "org.openpasture.simulator.demo.Demo",
                            "--at",
                            service.address().toString(),
                            "--setup-code",
                            ServiceProcess.SETUP_CODE,
                            "--password",
                            ServiceProcess.PASSWORD,
                            "--radio-port",
                            String.valueOf(service.radio().getPort()),
                            "--station-port",
                            String.valueOf(service.stationPort()),
                            "--mail-port",
                            String.valueOf(ServiceProcess.freePort()),
                            "--mailbox-port",
                            String.valueOf(mailbox),
                            "--pace",
                            "3"))
                    .redirectErrorStream(true)
                    .redirectOutput(folder.resolve("player.log").toFile())
                    .start();
            try {
                await().atMost(180, TimeUnit.SECONDS).until(() -> Files.readString(folder.resolve("player.log"))
                        .contains("playing"));
                Instant began = Instant.now();
                ApiClient technician = service.signIn("technician");

                PointView axial = Arrays.stream(technician.get("api/v1/points", PointView[].class))
                        .filter(point -> point.name().equals("Axial vibration"))
                        .findFirst()
                        .orElseThrow();
                assertThat(technician
                                .get("api/v1/points/" + axial.id() + "/readings?from="
                                        + began.minus(Duration.ofDays(61)))
                                .path("kept")
                                .asInt())
                        .as("sixty days, every ten minutes")
                        .isGreaterThan(8_000);

                AlertAnswer warning = await().atMost(180, TimeUnit.SECONDS)
                        .pollInterval(1, TimeUnit.SECONDS)
                        .until(() -> alert(technician, Severity.WARNING), java.util.Objects::nonNull);
                assertThat(warning.path()).containsExactly("Harrowfell Creamery", "Whey room", "Whey pump");
                await().atMost(100, TimeUnit.SECONDS)
                        .pollInterval(1, TimeUnit.SECONDS)
                        .until(() -> alert(technician, Severity.CRITICAL) != null);
                await().atMost(30, TimeUnit.SECONDS)
                        .pollInterval(1, TimeUnit.SECONDS)
                        .until(() -> page(mailbox).contains("stop the pump and switch to the standby pump"));
                assertThat(page(mailbox)).contains("zone D", "technician@harrowfell.example");

                List<DeviceView> devices = Arrays.asList(technician.get("api/v1/devices", DeviceView[].class));
                assertThat(devices)
                        .filteredOn(device -> device.state().equals("online"))
                        .extracting(DeviceView::name)
                        .contains(
                                "Pump sender",
                                "Silo 1 sender",
                                "Silo 2 sender",
                                "Cellar 1 sender",
                                "Mast sender",
                                "Hay beacon 2");
                assertThat(devices)
                        .filteredOn(device -> device.name().startsWith("Spare"))
                        .first()
                        .satisfies(spare -> assertThat(spare.problem()).contains("application key is wrong"));
                assertThat(technician
                                .get("api/v1/gateways/heard")
                                .path(0)
                                .path("eui")
                                .asString())
                        .isEqualTo("02ab54fffe10a0ff");
                await().atMost(90, TimeUnit.SECONDS)
                        .pollInterval(1, TimeUnit.SECONDS)
                        .untilAsserted(() -> assertThat(technician
                                        .get("api/v1/frames?refused=true")
                                        .valueStream()
                                        .map(frame -> frame.path("reason").asString()))
                                .as("a frame is played back")
                                .anyMatch(reason -> reason.contains("already used")));
                assertThat(devices)
                        .filteredOn(device -> device.name().equals("Intake sender"))
                        .singleElement()
                        .satisfies(intake -> {
                            assertThat(intake.path()).startsWith("Brindlewater Spring");
                            assertThat(intake.marginDb()).isBetween(0.0, 5.0);
                            assertThat(intake.batteryPercent()).isLessThan(10);
                        });
                await().atMost(240, TimeUnit.SECONDS)
                        .pollInterval(1, TimeUnit.SECONDS)
                        .until(() -> Arrays.stream(technician.get("api/v1/alerts", AlertAnswer[].class))
                                .anyMatch(alert -> alert.ruleName().equals("Cellar 2 warms with its door open")));
                startTheFan(technician);
                await().atMost(60, TimeUnit.SECONDS)
                        .pollInterval(1, TimeUnit.SECONDS)
                        .until(() ->
                                point(technician, "Evaporator fan").latest().value() == 1);
                assertThat(Files.readString(folder.resolve("player.log"))).doesNotContain("Exception");
            } finally {
                player.destroy();
                player.waitFor();
            }
        }
    }

    private static PointView point(ApiClient api, String name) {
        return Arrays.stream(api.get("api/v1/points", PointView[].class))
                .filter(point -> point.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    /** As somebody does who reads what the alert says to do. */
    private static void startTheFan(ApiClient api) {
        String cooling = Arrays.stream(api.get("api/v1/devices", DeviceView[].class))
                .filter(device -> device.name().equals("Cellar 2 cooling"))
                .findFirst()
                .orElseThrow()
                .id();
        api.put("api/v1/devices/" + cooling + "/channels/fan", java.util.Map.of("value", 1));
    }

    private static AlertAnswer alert(ApiClient api, Severity severity) {
        return Arrays.stream(api.get("api/v1/alerts", AlertAnswer[].class))
                .filter(alert -> alert.severity() == severity)
                .findFirst()
                .orElse(null);
    }
}
