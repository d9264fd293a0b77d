package org.openpasture.core.report;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;

/** What a report is about. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = ReportSubject.OfPlace.class, name = "place"),
    @JsonSubTypes.Type(value = ReportSubject.OfDashboard.class, name = "dashboard")
})
public sealed interface ReportSubject {
    /** The id of the place or the dashboard. */
    String id();

    /** All points of a site, area or asset. */
    record OfPlace(String id) implements ReportSubject {
        public OfPlace {
            check(id);
        }
    }

    /** The points of a dashboard. */
    record OfDashboard(String id) implements ReportSubject {
        public OfDashboard {
            check(id);
        }
    }

    private static void check(String id) {
        if (id == null || id.isBlank()) {
            throw new IllegalArgumentException("say by its id what the report is about");
        }
    }
}
