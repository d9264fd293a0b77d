package org.openpasture.core.edit;

import java.util.List;
import java.util.Optional;
import org.openpasture.core.access.Access;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.notice.Recipient;
import org.openpasture.core.people.Right;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.report.ReportSchedule;
import org.openpasture.core.report.ReportSubject;
import org.openpasture.core.series.CalendarPeriod;

/** Changes of reports that are sent by themselves. */
public final class ReportEdits {
    private static final int MOST_RECIPIENTS = 50;
    private static final int MOST = 200;

    private ReportEdits() {}

    /**
     * What becomes of a wish.
     *
     * @param access what is registered, and what the person who wishes may do
     */
    public static Edited edit(Access access, ReportWish wish) {
        return switch (wish) {
            case ReportWish.Save(ReportSchedule schedule) -> {
                Optional<ReportSchedule> before = access.registry().find(ReportSchedule.class, schedule.id());
                yield Edited.unless(
                        before.flatMap(one -> editing(access, one.subject()))
                                .or(() -> editing(access, schedule.subject()))
                                .or(() -> content(schedule))
                                .or(() -> before.isEmpty()
                                                && access.registry()
                                                                .all(ReportSchedule.class)
                                                                .size()
                                                        >= MOST
                                        ? Optional.of(Refused.clash(
                                                "There are " + MOST + " scheduled reports.", "Remove one first."))
                                        : Optional.empty()),
                        () -> Changes.put(schedule));
            }
            case ReportWish.Remove(String id) ->
                access.registry()
                        .find(ReportSchedule.class, id)
                        .<Edited>map(schedule -> Edited.unless(
                                editing(access, schedule.subject()),
                                () -> new Changes(List.of(new Change.Remove(Kind.REPORT_SCHEDULE, id)))))
                        .orElse(Refused.unknown("scheduled report"));
        };
    }

    /** The steps by which the scheduled reports of a place or a dashboard go with it. */
    static List<Change> without(Registry now, String subjectId) {
        return now.all(ReportSchedule.class).stream()
                .filter(schedule -> schedule.subject().id().equals(subjectId))
                .<Change>map(schedule -> new Change.Remove(Kind.REPORT_SCHEDULE, schedule.id()))
                .toList();
    }

    /** Whether somebody may see a scheduled report and whom it is sent to. */
    public static boolean maySee(Access access, ReportSchedule schedule) {
        return editing(access, schedule.subject()).isEmpty();
    }

    private static Optional<Refused> editing(Access access, ReportSubject subject) {
        return switch (subject) {
            case ReportSubject.OfPlace(String id) -> Rights.on(access, Right.EDIT, id, "schedule reports here");
            case ReportSubject.OfDashboard(String id) -> {
                Optional<Dashboard> seen = access.registry()
                        .find(Dashboard.class, id)
                        .filter(dashboard -> access.may(Right.LOOK, dashboard));
                yield seen.isEmpty()
                        ? Optional.of(Refused.unknown("dashboard"))
                        : access.may(Right.EDIT, seen.get())
                                ? Optional.empty()
                                : Optional.of(Refused.notAllowed("schedule reports of this dashboard"));
            }
        };
    }

    private static Optional<Refused> content(ReportSchedule schedule) {
        if (schedule.period() == CalendarPeriod.HOUR || schedule.period() == CalendarPeriod.YEAR) {
            return Optional.of(Refused.invalid(
                    "A report cannot be sent after each " + schedule.period().id() + ".", "Use day, week or month."));
        }
        if (schedule.recipients().isEmpty() || schedule.recipients().size() > MOST_RECIPIENTS) {
            return Optional.of(Refused.invalid(
                    "A report is sent to 1 to " + MOST_RECIPIENTS + " recipients.", "Enter who receives it."));
        }
        return schedule.recipients().stream()
                .map(Recipient::kept)
                .filter(Recipient.Text.class::isInstance)
                .findFirst()
                .map(number -> Refused.invalid(
                        "A report cannot be sent to the telephone number " + number.written() + ".",
                        "Enter a mail address."));
    }
}
