package org.openpasture.acceptance;

import java.io.IOException;
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
        return ServiceProcess.start(
                List.of(
                        ServiceProcess.java(),
                        "-XX:TieredStopAtLevel=1",
                        "--enable-native-access=ALL-UNNAMED",
                        "-cp",
                        System.getProperty("java.class.path"),
                        "org.openpasture.service.PastureService"),
                data,
                mqttPort);
    }
}
