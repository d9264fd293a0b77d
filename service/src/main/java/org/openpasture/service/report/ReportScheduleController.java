package org.openpasture.service.report;

import java.time.Clock;
import java.util.Comparator;
import java.util.List;
import org.openpasture.api.report.ReportScheduleRequest;
import org.openpasture.api.report.ReportScheduleView;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.ReportEdits;
import org.openpasture.core.edit.ReportWish;
import org.openpasture.core.people.Person;
import org.openpasture.core.report.ReportSchedule;
import org.openpasture.engine.report.ScheduledReports;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Editor;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.service.web.Turns;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Reports that are made and sent by themselves. */
@RestController
class ReportScheduleController {
    private final ScheduledReports reports;
    private final Reader reader;
    private final Editor editor;
    private final Clock clock;
    private final Turns turns = new Turns(1, "Other reports");

    ReportScheduleController(ScheduledReports reports, Reader reader, Editor editor, Clock clock) {
        this.reports = reports;
        this.reader = reader;
        this.editor = editor;
        this.clock = clock;
    }

    /** Scheduled reports of places and dashboards that the reader may edit. */
    @GetMapping("/api/v1/report-schedules")
    List<ReportScheduleView> list() {
        Access access = reader.access();
        return access.registry().all(ReportSchedule.class).stream()
                .filter(schedule -> ReportEdits.maySee(access, schedule))
                .map(this::view)
                .sorted(Comparator.comparing(ReportScheduleView::title).thenComparing(ReportScheduleView::id))
                .toList();
    }

    /** One of them. */
    @GetMapping("/api/v1/report-schedules/{id}")
    ReportScheduleView one(@PathVariable String id) {
        return view(visible(id));
    }

    private ReportSchedule visible(String id) {
        Access access = reader.access();
        return access.registry()
                .find(ReportSchedule.class, id)
                .filter(schedule -> ReportEdits.maySee(access, schedule))
                .orElseThrow(() -> Problem.notFound("scheduled report"));
    }

    /** Schedules a report. The first one is sent after the period that runs now. */
    @PostMapping("/api/v1/report-schedules")
    @ResponseStatus(HttpStatus.CREATED)
    ReportScheduleView make(@RequestBody ReportScheduleRequest request) {
        return saved(Accounts.newId(), request);
    }

    /** Changes a scheduled report. It holds what the one who saves it may see. */
    @PutMapping("/api/v1/report-schedules/{id}")
    ReportScheduleView change(@PathVariable String id, @RequestBody ReportScheduleRequest request) {
        visible(id);
        return saved(id, request);
    }

    private ReportScheduleView saved(String id, ReportScheduleRequest request) {
        ReportSchedule schedule = new ReportSchedule(
                id,
                request.subject(),
                request.period(),
                request.at(),
                request.recipients(),
                Boolean.TRUE.equals(request.withReadings()),
                !Boolean.FALSE.equals(request.enabled()),
                reader.person().id(),
                clock.instant());
        editor.edit(access -> ReportEdits.edit(access, new ReportWish.Save(schedule)));
        return view(schedule);
    }

    /** Sends no more of it. */
    @DeleteMapping("/api/v1/report-schedules/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String id) {
        visible(id);
        editor.edit(access -> ReportEdits.edit(access, new ReportWish.Remove(id)));
        reports.forget(id);
    }

    /** Sends the report of the last period that is over now, to try it. */
    @PostMapping("/api/v1/report-schedules/{id}/sending")
    ReportScheduleView send(@PathVariable String id) {
        ReportSchedule schedule = visible(id);
        return turns.take(() -> {
            reports.sendNow(schedule);
            return view(schedule);
        });
    }

    private ReportScheduleView view(ReportSchedule schedule) {
        ScheduledReports.Standing standing = reports.standing(schedule);
        return new ReportScheduleView(
                schedule.id(),
                schedule.subject(),
                standing.title(),
                schedule.period(),
                schedule.at(),
                schedule.recipients(),
                schedule.withReadings(),
                schedule.enabled(),
                reader.now()
                        .find(Person.class, schedule.ownerId())
                        .map(Person::name)
                        .orElse("somebody who is gone"),
                standing.nextAt().orElse(null),
                standing.lastUntil().orElse(null),
                standing.lastAt().orElse(null),
                standing.delivered(),
                standing.problem());
    }
}
