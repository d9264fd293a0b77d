package org.openpasture.api.dashboard;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.dashboard.Panel;
import org.openpasture.core.dashboard.Purpose;

/**
 * A dashboard to make or change.
 *
 * @param panels null for sensible ones made from {@code pointIds}, or for {@code purpose} and {@code placeId}
 * @param purpose what it is for; with it go the points of {@code placeId} and of what lies below
 * @param version the version that was edited; the change is refused if somebody saved another one meanwhile
 */
public record DashboardRequest(
        String name,
        @Nullable String siteId,
        @Nullable List<Panel> panels,
        @Nullable List<String> pointIds,
        @Nullable Purpose purpose,
        @Nullable String placeId,
        @Nullable Integer version) {
    public DashboardRequest {
        name = Require.text(name, "the dashboard's name", 80);
        if (purpose != null && placeId == null) {
            throw new IllegalArgumentException("a dashboard for a purpose needs the place ('placeId') that it is for");
        }
    }
}
