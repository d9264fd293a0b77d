package org.openpasture.acceptance;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.openpasture.simulator.host.ServiceProcess;

/** The service as it was just built, as a process of its own. */
public final class BuiltService {
    private BuiltService() {}

    public static ServiceProcess start(Path data) throws IOException {
        return start(data, -1);
    }

    /** The same with the MQTT broker inside at a port. */
    public static ServiceProcess start(Path data, int mqttPort) throws IOException {
        return ServiceProcess.start(launch(), data, mqttPort);
    }

    /** As the build has just packaged it; by the class path of this process where it has not, as in an editor. */
    private static List<String> launch() {
        String packaged = System.getProperty("pasture.app", "");
        Path app = Path.of(packaged).toAbsolutePath().normalize();
        return !packaged.isEmpty() && Files.exists(app.resolve("service.options"))
                ? List.of(
                        ServiceProcess.java(),
                        "@" + app.resolve("service.options"),
                        "-jar",
                        app.resolve("service.jar").toString())
                : List.of(
                        ServiceProcess.java(),
                        "-XX:TieredStopAtLevel=1",
                        "--enable-native-access=ALL-UNNAMED",
                        "-cp",
                        System.getProperty("java.class.path"),
                        "org.openpasture.service.PastureService");
    }
}
