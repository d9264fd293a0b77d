package org.openpasture.bench;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Locale;
import org.openpasture.simulator.host.ServiceProcess;

/** From the start of the process until gateways can reach it. */
final class StartUp {
    private StartUp() {}

    static void measure(Path app) throws IOException {
        InstalledService.start(app, true).close();
        for (boolean quick : new boolean[] {true, false}) {
            try (ServiceProcess service = InstalledService.start(app, quick)) {
                Bench.row(
                        "start: seconds until gateways are heard, "
                                + (quick ? "with the cache of loaded classes" : "without it"),
                        String.format(Locale.ROOT, "%.1f", service.untilReady().toMillis() / 1000.0));
            }
        }
    }
}
