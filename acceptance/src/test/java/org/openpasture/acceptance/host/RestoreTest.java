package org.openpasture.acceptance.host;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.acceptance.BuiltService;
import org.openpasture.acceptance.Plant;
import org.openpasture.client.http.ApiClient;
import org.openpasture.client.http.ServiceProblem;
import org.openpasture.client.http.ServiceUnreachable;
import org.openpasture.simulator.host.ServiceProcess;

/** A backup is put back by the service itself, which stops and starts again for it. */
class RestoreTest {
    @TempDir
    private Path folder;

    private static void bringIn(ApiClient owner, int point, String time) {
        owner.postCsv(
                "api/v1/readings/import?dryRun=false",
                new ByteArrayInputStream(
                        ("time,point,value\n" + time + "," + point + ",2\n").getBytes(StandardCharsets.UTF_8)));
    }

    @Test
    void whatCameInAfterTheBackupIsMovedAsideAndTheRestIsThere() throws Exception {
        Path data = folder.resolve("data");
        try (ServiceProcess service = BuiltService.start(data)) {
            ApiClient owner = service.owner();
            Plant plant = new Plant(owner);
            plant.pumpSender();
            int point = plant.point("Axial vibration").number();
            bringIn(owner, point, "2026-03-01T08:00:00Z");
            String name = owner.postAndWait("api/v1/backups").path("name").asString();
            bringIn(owner, point, "2026-03-01T09:00:00Z");
            assertThat(owner.get("api/v1/records").path("readings").asInt()).isEqualTo(2);

            owner.postAndWait("api/v1/backups/" + name + "/restore");
            await().atMost(Duration.ofSeconds(60))
                    .ignoreExceptionsMatching(
                            gone -> gone instanceof ServiceUnreachable || gone instanceof ServiceProblem)
                    .until(() -> service.signIn("owner")
                                    .get("api/v1/records")
                                    .path("readings")
                                    .asInt()
                            == 1);
            bringIn(service.signIn("owner"), point, "2026-03-01T10:00:00Z");
            assertThat(service.signIn("owner")
                            .get("api/v1/records")
                            .path("readings")
                            .asInt())
                    .isEqualTo(2);
        }
        try (Stream<Path> files = Files.list(data)) {
            assertThat(files.filter(file -> file.getFileName().toString().startsWith("before-restore")))
                    .singleElement()
                    .satisfies(
                            aside -> assertThat(aside.resolve("telemetry.db")).exists());
        }
    }
}
