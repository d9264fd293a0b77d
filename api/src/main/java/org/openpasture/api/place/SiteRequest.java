package org.openpasture.api.place;

import java.time.ZoneId;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;

/**
 * A site to make or change.
 *
 * @param zone time zone, "Europe/London"; null for the service's own
 */
public record SiteRequest(
        String name,
        @Nullable ZoneId zone,
        @Nullable Double latitude,
        @Nullable Double longitude) {
    public SiteRequest {
        name = Require.text(name, "the site's name", 80);
        if ((latitude == null) != (longitude == null)) {
            throw new IllegalArgumentException("a position has a latitude and a longitude; one of them is missing");
        }
    }
}
