package org.openpasture.core.edit;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.dashboard.Panel;

/** What a person wishes to do with a dashboard. */
public sealed interface DashboardWish {
    /**
     * Makes one; it is the person's own.
     *
     * @param siteId who may look at this site sees it; null keeps it private
     */
    record Make(String id, String name, @Nullable String siteId, List<Panel> panels) implements DashboardWish {
        public Make {
            panels = List.copyOf(panels);
        }
    }

    /**
     * Changes one.
     *
     * @param panels null leaves them as they are
     * @param version that was edited; if somebody saved another one meanwhile nothing is changed. Null for whatever
     *     there is
     */
    record Change(
            String id,
            String name,
            @Nullable String siteId,
            @Nullable List<Panel> panels,
            @Nullable Integer version) implements DashboardWish {}

    /** Removes one, and the links to it. */
    record Remove(String id) implements DashboardWish {}
}
