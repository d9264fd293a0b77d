package org.openpasture.api.dashboard;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.place.PointView;
import org.openpasture.core.dashboard.Panel;
import org.openpasture.core.limit.LimitSet;

/**
 * A dashboard with everything that it needs to be drawn.
 *
 * @param shown by the id of each panel, the ids of the points that it shows to the reader, its selection's included
 * @param points those of its panels that the reader may see
 * @param limitSets those that hold for the points
 */
public record DashboardView(
        String id,
        String name,
        String ownerName,
        @Nullable String siteId,
        int version,
        boolean mayEdit,
        List<Panel> panels,
        Map<String, List<String>> shown,
        List<PointView> points,
        List<LimitSet> limitSets) {}
