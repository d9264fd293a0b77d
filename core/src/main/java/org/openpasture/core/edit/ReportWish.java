package org.openpasture.core.edit;

import org.openpasture.core.report.ReportSchedule;

/** What somebody wishes of reports that are sent by themselves. */
public sealed interface ReportWish {
    /** A new one, or one with this id changed. */
    record Save(ReportSchedule schedule) implements ReportWish {}

    /** No more of it. */
    record Remove(String id) implements ReportWish {}
}
