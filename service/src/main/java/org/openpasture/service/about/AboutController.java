package org.openpasture.service.about;

import java.io.IOException;
import java.io.InputStream;
import java.time.Clock;
import java.time.Instant;
import java.util.Properties;
import org.openpasture.api.about.AboutView;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** Says which version runs here, on what and since when. */
@RestController
class AboutController {
    private final String version;
    private final Instant startedAt;

    AboutController(Clock clock) throws IOException {
        startedAt = clock.instant();
        Properties built = new Properties();
        try (InputStream in = AboutController.class.getResourceAsStream("/version.properties")) {
            if (in != null) {
                built.load(in);
            }
        }
        version = built.getProperty("version", "unknown");
    }

    /** Version, runtime and system, for who is signed in. */
    @GetMapping("/api/v1/about")
    AboutView about() {
        return new AboutView(
                version,
                Runtime.version().toString(),
                System.getProperty("os.name") + " " + System.getProperty("os.version") + ", "
                        + System.getProperty("os.arch"),
                "Apache-2.0",
                startedAt);
    }
}
