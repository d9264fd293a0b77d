package org.openpasture.engine.report;

import jakarta.annotation.PreDestroy;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.openpasture.core.access.Access;
import org.openpasture.core.access.PanelPoints;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.notice.Recipient;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.PersonWays;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.report.ReportSchedule;
import org.openpasture.core.report.ReportSubject;
import org.openpasture.core.rule.PointSelection;
import org.openpasture.engine.config.EngineSettings;
import org.openpasture.engine.export.ExportFormat;
import org.openpasture.engine.export.ExportedPoint;
import org.openpasture.engine.export.ReadingWriter;
import org.openpasture.engine.notice.Attachment;
import org.openpasture.engine.notice.NotDelivered;
import org.openpasture.engine.notice.Post;
import org.openpasture.inlets.loop.Loop;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.series.SeriesStore;
import org.openpasture.store.setting.SettingStore;
import org.openpasture.store.telemetry.TelemetryStore;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * Makes reports after each day, week or month and sends them by mail. To whom one was delivered is on disk, so that
 * nobody receives it twice; what could not be delivered is tried again for a day. After a time in which the service did
 * not run, only the report of the last period is sent.
 */
@Component
public class ScheduledReports {
    private static final Logger LOG = LoggerFactory.getLogger(ScheduledReports.class);
    private static final Duration LOOK_EVERY = Duration.ofSeconds(15);
    private static final int MOST_ATTEMPTS = 12;
    private static final Duration LONGEST_PAUSE = Duration.ofHours(4);
    private static final int MOST_POINTS = 1_000;
    /** About ten megabytes of CSV, which mail servers take. */
    private static final long MOST_READINGS = 250_000;

    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM yyyy", Locale.ENGLISH);

    private final RegistryStore registry;
    private final SettingStore settings;
    private final TelemetryStore telemetry;
    private final Reports reports;
    private final Post post;
    private final EngineSettings engine;
    private final Clock clock;
    private final Loop loop = Loop.onVirtualThread("reports", this::turn);

    /**
     * What became of the report of one period.
     *
     * @param until the end of the period
     * @param at when it was last tried
     * @param attempts how often it was tried
     * @param delivered addresses
     * @param refused reasons by address, where trying again changes nothing
     * @param problem of the last attempt, in words; empty for none
     * @param nextAt when it is tried again
     */
    record Sent(
            Instant until,
            Instant at,
            int attempts,
            List<String> delivered,
            Map<String, String> refused,
            String problem,
            Instant nextAt) {
        static Sent begin(Instant until, Instant now) {
            return new Sent(until, now, 0, List.of(), Map.of(), "", now);
        }
    }

    /**
     * How a scheduled report stands.
     *
     * @param nextAt when the next one is sent; empty while it is not enabled
     * @param lastUntil the end of the period of the last one; empty if none was sent yet
     * @param problem why the last one did not reach everybody; empty if it did
     */
    public record Standing(
            String title,
            Optional<Instant> nextAt,
            Optional<Instant> lastUntil,
            Optional<Instant> lastAt,
            List<String> delivered,
            String problem) {}

    ScheduledReports(
            RegistryStore registry,
            SettingStore settings,
            TelemetryStore telemetry,
            Reports reports,
            Post post,
            EngineSettings engine,
            Clock clock) {
        this.registry = registry;
        this.settings = settings;
        this.telemetry = telemetry;
        this.reports = reports;
        this.post = post;
        this.engine = engine;
        this.clock = clock;
    }

    @EventListener(ApplicationReadyEvent.class)
    void start() {
        loop.start();
    }

    @PreDestroy
    void close() {
        loop.close();
    }

    private void turn() throws InterruptedException {
        Thread.sleep(LOOK_EVERY);
        sendWhatIsDue();
    }

    /** Sends what is due now. One that cannot be made does not hold up the others. */
    void sendWhatIsDue() {
        Registry now = registry.now();
        for (ReportSchedule schedule : now.all(ReportSchedule.class)) {
            due(now, schedule).ifPresent(sent -> sendOrSay(now, schedule, sent));
        }
    }

    private void sendOrSay(Registry now, ReportSchedule schedule, Sent sent) {
        try {
            send(now, schedule, sent);
        } catch (RuntimeException e) {
            LOG.warn("The report of {} could not be sent", title(now, schedule), e);
            Sent known = sent(schedule)
                    .filter(one -> one.until().equals(sent.until()))
                    .orElse(sent);
            save(schedule, after(sent, known.delivered(), known.refused(), "It could not be made: " + e.getMessage()));
        }
    }

    private Optional<Sent> due(Registry now, ReportSchedule schedule) {
        if (!schedule.enabled()) {
            return Optional.empty();
        }
        Instant at = clock.instant();
        Instant end = schedule.lastEnd(zone(now, schedule), at);
        Optional<Sent> sent = sent(schedule);
        if (end.isAfter(schedule.since())
                && sent.filter(one -> !one.until().isBefore(end)).isEmpty()) {
            return Optional.of(Sent.begin(end, at));
        }
        return sent.filter(one -> one.attempts() > 0
                && one.attempts() < MOST_ATTEMPTS
                && !one.problem().isEmpty()
                && !one.nextAt().isAfter(at));
    }

    /** How it stands. */
    public Standing standing(ReportSchedule schedule) {
        Registry now = registry.now();
        ZoneId zone = zone(now, schedule);
        Optional<Sent> sent = sent(schedule);
        return new Standing(
                title(now, schedule),
                schedule.enabled() ? Optional.of(schedule.next(zone, clock.instant())) : Optional.empty(),
                sent.map(Sent::until),
                sent.filter(one -> one.attempts() > 0).map(Sent::at),
                sent.map(Sent::delivered).orElse(List.of()),
                sent.map(Sent::problem).orElse(""));
    }

    /** Sends the report of the last period that is over at once, to everybody, also to those who have it already. */
    public void sendNow(ReportSchedule schedule) {
        Registry now = registry.now();
        Instant at = clock.instant();
        send(now, schedule, Sent.begin(schedule.period().startOf(at, zone(now, schedule)), at));
    }

    /** Forgets what became of a report that is removed. */
    public void forget(String id) {
        settings.remove(key(id));
    }

    /** One after the other: who tries a report does not send it beside the one that is due. */
    private synchronized void send(Registry now, ReportSchedule schedule, Sent sent) {
        Optional<Access> access = now.find(Person.class, schedule.ownerId()).map(person -> new Access(now, person));
        Optional<Reports.Subject> subject = access.flatMap(one -> subject(one, schedule.subject()));
        if (subject.isEmpty()) {
            save(
                    schedule,
                    after(
                            sent,
                            sent.delivered(),
                            sent.refused(),
                            access.isEmpty()
                                    ? "The person who set it up is gone. Save it again."
                                    : "The person who set it up may not see it any more. Save it again."));
            return;
        }
        ZoneId zone = Reports.zone(now, subject.get().placeId(), subject.get().points());
        Instant from = schedule.period().startOf(sent.until().minusMillis(1), zone);
        Report report = reports.of(now, subject.get(), from, sent.until());
        List<Attachment> files = new ArrayList<>(List.of(pdf(report)));
        boolean tooMany = schedule.withReadings() && !attach(now, report, files);
        String days = days(from, sent.until(), zone);
        String subjectLine = "Report " + report.title() + ", " + days;
        String text = text(report, days, tooMany);
        List<String> delivered = new ArrayList<>(sent.delivered());
        Map<String, String> refused = new TreeMap<>(sent.refused());
        // First: where nothing can be written, nobody receives it again and again.
        save(schedule, after(sent, delivered, refused, "It is being sent."));
        Map<String, String> failed = new TreeMap<>();
        for (String recipient : schedule.recipients()) {
            Optional<String> address = address(now, recipient);
            if (address.isEmpty()) {
                refused.put(recipient, "has no mail address");
            } else if (!delivered.contains(recipient) && !refused.containsKey(recipient)) {
                String id = schedule.id() + "/" + sent.until() + "/" + recipient;
                Optional<NotDelivered> why = post.send(id, address.get(), subjectLine, text, files);
                if (why.isEmpty()) {
                    delivered.add(recipient);
                    save(schedule, after(sent, delivered, refused, "It is being sent."));
                } else if (why.get().isFinal()) {
                    refused.put(recipient, why.get().reason());
                } else {
                    failed.put(recipient, why.get().reason());
                }
            }
        }
        failed.putAll(refused);
        String problem = failed.entrySet().stream()
                .map(one -> one.getKey().replaceFirst("^" + Recipient.PERSON, "") + ": " + one.getValue())
                .collect(Collectors.joining("; "));
        Sent done = after(sent, delivered, refused, problem);
        boolean isOver = refused.size() == failed.size();
        save(
                schedule,
                isOver
                        ? new Sent(
                                done.until(),
                                done.at(),
                                MOST_ATTEMPTS,
                                done.delivered(),
                                refused,
                                problem,
                                done.nextAt())
                        : done);
    }

    private Sent after(Sent before, List<String> delivered, Map<String, String> refused, String problem) {
        Instant now = clock.instant();
        Duration pause = Duration.ofMinutes(1L << Math.min(10, before.attempts()));
        return new Sent(
                before.until(),
                now,
                before.attempts() + 1,
                List.copyOf(delivered),
                Map.copyOf(refused),
                problem,
                now.plus(pause.compareTo(LONGEST_PAUSE) > 0 ? LONGEST_PAUSE : pause));
    }

    private static Optional<String> address(Registry now, String recipient) {
        return switch (Recipient.kept(recipient)) {
            case Recipient.Mail(String address) -> Optional.of(address);
            case Recipient.Text text -> Optional.empty();
            case Recipient.OfBrowser browser -> Optional.empty();
            case Recipient.OfPerson(String name) -> now.person(name).flatMap(person -> PersonWays.mailOf(now, person));
        };
    }

    /** What a report is about as somebody may see it; empty if they may not. */
    private static Optional<Reports.Subject> subject(Access access, ReportSubject of) {
        return switch (of) {
            case ReportSubject.OfPlace(String id) ->
                access.registry()
                        .place(id)
                        .filter(place -> access.may(Right.LOOK, id))
                        .map(place -> Reports.Subject.of(
                                access,
                                place.name(),
                                Optional.of(id),
                                access.registry().pointsOf(new PointSelection(id, null, null, null)).stream()
                                        .filter(access::maySee)
                                        .limit(MOST_POINTS)
                                        .toList()));
            case ReportSubject.OfDashboard(String id) ->
                access.registry()
                        .find(Dashboard.class, id)
                        .filter(dashboard -> access.may(Right.LOOK, dashboard))
                        .map(dashboard -> Reports.Subject.of(
                                access,
                                dashboard.name(),
                                Optional.empty(),
                                PanelPoints.of(access, dashboard).stream()
                                        .limit(MOST_POINTS)
                                        .toList()));
        };
    }

    /** Of a report that its maker cannot make any more too, so that it stands somewhere in time. */
    private static ZoneId zone(Registry now, ReportSchedule schedule) {
        return switch (schedule.subject()) {
            case ReportSubject.OfPlace(String id) -> Reports.zone(now, Optional.of(id), List.of());
            case ReportSubject.OfDashboard dashboard ->
                now.find(Person.class, schedule.ownerId())
                        .flatMap(owner -> subject(new Access(now, owner), dashboard))
                        .map(subject -> Reports.zone(now, subject.placeId(), subject.points()))
                        .orElse(ZoneOffset.UTC);
        };
    }

    private static String title(Registry now, ReportSchedule schedule) {
        return switch (schedule.subject()) {
            case ReportSubject.OfPlace(String id) ->
                now.place(id).map(Place::name).orElse("");
            case ReportSubject.OfDashboard(String id) ->
                now.find(Dashboard.class, id).map(Dashboard::name).orElse("");
        };
    }

    private static Attachment pdf(Report report) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        PdfReport.write(report, out);
        return new Attachment(fileName(report) + ".pdf", "application/pdf", out.toByteArray());
    }

    private static String fileName(Report report) {
        return "report " + report.title().replaceAll("[^\\p{L}\\p{N} .-]+", "-");
    }

    /** Attaches the readings as CSV; false if they are too many for a mail. */
    private boolean attach(Registry now, Report report, List<Attachment> files) {
        SeriesStore series = telemetry.series();
        List<ExportedPoint> points = report.points().stream()
                .flatMap(point -> now.find(Point.class, point.point().id()).stream())
                .map(point -> ExportedPoint.of(now, point, report.units()))
                .toList();
        long about = points.stream()
                .mapToLong(of -> series.estimate(of.point().number(), report.from(), report.until()))
                .sum();
        if (about > MOST_READINGS) {
            return false;
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ReadingWriter writer = ExportFormat.CSV.begin(out, points)) {
            for (ExportedPoint of : points) {
                ReadingWriter.all(series, writer, of, report.from(), report.until());
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        files.add(new Attachment(fileName(report) + ".csv", "text/csv", out.toByteArray()));
        return true;
    }

    private static String days(Instant from, Instant until, ZoneId zone) {
        LocalDate first = from.atZone(zone).toLocalDate();
        LocalDate last = until.minusMillis(1).atZone(zone).toLocalDate();
        return first.equals(last) ? DAY.format(first) : DAY.format(first) + " to " + DAY.format(last);
    }

    private String text(Report report, String days, boolean tooMany) {
        String address = engine.addressOrEmpty();
        return report.title() + ", " + days + "\n\n"
                + InShort.of(report).stream().map(one -> "- " + one + "\n").collect(Collectors.joining())
                + "\nThe whole report is attached.\n"
                + (tooMany ? "The readings are too many for a mail; download them in the console.\n" : "")
                + (address.isEmpty() ? "" : address + "\n");
    }

    private static String key(String id) {
        return "report-schedule:" + id;
    }

    private Optional<Sent> sent(ReportSchedule schedule) {
        return settings.find(key(schedule.id()), Sent.class);
    }

    private void save(ReportSchedule schedule, Sent sent) {
        settings.save(key(schedule.id()), sent);
    }
}
