package org.openpasture.api.dashboard;

import java.time.Instant;
import java.util.List;
import org.openpasture.core.dashboard.Panel;

/**
 * A dashboard as it was once.
 *
 * @param savedAt when it became so
 * @param savedBy by whom
 */
public record DashboardVersionView(int version, Instant savedAt, String savedBy, String name, List<Panel> panels) {}
