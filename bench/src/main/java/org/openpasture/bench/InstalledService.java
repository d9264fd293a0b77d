package org.openpasture.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.openpasture.simulator.host.ServiceProcess;

/** The service as ./pasture starts it, with empty records. */
final class InstalledService {
    private InstalledService() {}

    static ServiceProcess start(Path app, boolean quick, String... jvmOptions) throws IOException {
        return start(app, quick, Files.createTempDirectory("pasture-bench"), jvmOptions);
    }

    /** With the cache of classes, in a folder that may hold records already. */
    static ServiceProcess startAt(Path app, Path data) throws IOException {
        return start(app, true, data);
    }

    /** With the MQTT broker inside. */
    static ServiceProcess withBroker(Path app, int mqttPort) throws IOException {
        return ServiceProcess.start(launch(app, true), Files.createTempDirectory("pasture-bench"), mqttPort);
    }

    private static ServiceProcess start(Path app, boolean quick, Path data, String... jvmOptions) throws IOException {
        return ServiceProcess.start(launch(app, quick, jvmOptions), data);
    }

    /** What ./pasture serve gives Java; with "-128m" as for a box with 1 GB. */
    static List<String> options(String size) {
        return List.of(System.getProperty("pasture.java-options" + size, "--enable-native-access=ALL-UNNAMED")
                .strip()
                .split("\\s+"));
    }

    private static List<String> launch(Path app, boolean quick, String... jvmOptions) {
        List<String> launch = new ArrayList<>(List.of(ServiceProcess.java()));
        if (jvmOptions.length == 0) {
            launch.addAll(options(""));
        }
        if (quick) {
            launch.addAll(List.of(
                    "-XX:AOTCache=" + app.resolve("service.aot"),
                    "-XX:AOTMode=auto",
                    "-Xlog:aot*=off",
                    "-Xlog:cds=off"));
        }
        launch.addAll(Arrays.asList(jvmOptions));
        launch.addAll(List.of("-jar", app.resolve("service.jar").toString()));
        return launch;
    }
}
