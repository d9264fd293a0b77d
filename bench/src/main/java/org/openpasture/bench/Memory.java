package org.openpasture.bench;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.openpasture.simulator.host.ServiceProcess;

/** Resident memory of the service after a minute of the demo, as it comes and with a small heap for a box with 1 GB. */
final class Memory {
    private static final int SECONDS = 60;

    private Memory() {}

    static void measure(Path app) throws IOException, InterruptedException {
        demo(app, "as it comes");
        demo(app, "with --memory 128m", InstalledService.options("-128m").toArray(String[]::new));
    }

    private static void demo(Path app, String what, String... options) throws IOException, InterruptedException {
        try (ServiceProcess service = InstalledService.start(app, true, options)) {
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
                            "8582",
                            "--mailbox-port",
                            "8583"))
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start();
            try {
                if (player.waitFor(SECONDS, TimeUnit.SECONDS)) {
                    throw new IllegalStateException("the demo could not be played");
                }
                Bench.row("memory: MB resident with the demo, " + what, String.valueOf(service.residentMegabytes()));
            } finally {
                player.destroy();
                player.waitFor();
            }
        }
    }
}
