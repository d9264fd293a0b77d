package org.openpasture.api.dashboard;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.dashboard.Panel;

/**
 * A dashboard to make or change.
 *
 * @param panels null for sensible ones made from {@code pointIds}
 * @param version the version that was edited; the change is refused if somebody saved another one meanwhile
 */
public record DashboardRequest(
        String name,
        @Nullable String siteId,
        @Nullable List<Panel> panels,
        @Nullable List<String> pointIds,
        @Nullable Integer version) {
    public DashboardRequest {
        name = Require.text(name, "the dashboard's name", 80);
    }
}
