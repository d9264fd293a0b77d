package org.openpasture.engine.notice;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.people.DisplayUnits;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Shown;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Paths;
import org.openpasture.core.registry.PointValues;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Measure;
import org.openpasture.core.rule.Rule;
import org.openpasture.engine.config.EngineSettings;
import org.openpasture.store.notice.Notice;
import org.springframework.stereotype.Component;

/** The words of a notice: what, where, the value, the limit, since when, and what to do. */
@Component
public class NoticeText {
    /** What stands before the text of what was over and is not any more. */
    public static final String AGAIN = "This alert applies again.\n\n";

    private static final Duration LATE = Duration.ofMinutes(2);
    private final EngineSettings settings;

    NoticeText(EngineSettings settings) {
        this.settings = settings;
    }

    /** Our mark, a fence with a rail for each step of severity, in letters. */
    static String mark(Severity severity) {
        return switch (severity) {
            case NORMAL -> "| |";
            case ADVISORY -> "|-|";
            case WARNING -> "|=|";
            case CRITICAL -> "|#|";
        };
    }

    /** A subject for where the mark is drawn beside it. */
    public static String withoutMark(String subject) {
        return subject.replaceFirst("^\\|.\\| ", "");
    }

    /** How the subject begins of what is over. */
    public String subjectOver(Alert alert) {
        return mark(Severity.NORMAL) + " back to normal: " + alert.summary();
    }

    /** What is told when an alert is over. */
    public String bodyOver(Registry registry, Alert alert, Instant at, @Nullable Double value, DisplayUnits units) {
        ZoneId zone = registry.zoneOf(alert.placeId());
        StringBuilder body =
                new StringBuilder("Back to normal: ").append(alert.summary()).append("\n\n");
        line(body, "Where", Paths.line(registry, alert.placeId()));
        if (value != null) {
            line(body, "Value", value(registry, alert, value, units));
        }
        line(body, "Since", time(at, zone));
        line(body, "Raised", time(alert.raisedAt(), zone));
        return body.toString();
    }

    /** What stands before the text for who is told because nobody has acknowledged. */
    public static String unanswered(int minutes) {
        return "Nobody has acknowledged this alert for " + minutes + " min.\n\n";
    }

    public String subject(Alert alert) {
        return mark(alert.severity()) + " " + alert.severity().id() + ": " + alert.summary();
    }

    /**
     * The text of a notice.
     *
     * @param token by which its reader acknowledges without signing in; empty for none
     * @param units in which its reader reads values
     */
    public String body(Registry registry, Alert alert, String token, DisplayUnits units) {
        ZoneId zone = registry.zoneOf(alert.placeId());
        StringBuilder body = new StringBuilder();
        body.append(alert.summary()).append("\n\n");
        line(body, "Where", Paths.line(registry, alert.placeId()));
        if (alert.value() != null) {
            line(body, "Value", value(registry, alert, alert.value(), units));
        }
        line(body, "Limit", alert.limit());
        line(body, "Since", time(alert.startedAt(), zone));
        line(body, "Raised", time(alert.raisedAt(), zone));
        if (alert.learntAt().isAfter(alert.raisedAt().plus(LATE))) {
            line(body, "Learnt", time(alert.learntAt(), zone) + ", as it was handed over later");
        }
        line(body, "Rule", alert.ruleName() + " (" + alert.severity().id() + ")");
        if (!alert.guidance().isBlank()) {
            body.append("\nWhat to do:\n").append(alert.guidance()).append('\n');
        }
        if (!settings.addressOrEmpty().isEmpty()) {
            body.append("\nOpen the alert: ")
                    .append(settings.addressOrEmpty())
                    .append("/alerts/")
                    .append(alert.id())
                    .append('\n');
            if (!token.isEmpty()) {
                body.append("Acknowledge without signing in: ")
                        .append(settings.addressOrEmpty())
                        .append("/acknowledge#")
                        .append(token)
                        .append('\n');
            }
        }
        return body.toString();
    }

    /**
     * The text of a text message: what, how bad, where, since when, and the address of the alert. Without a mark and in
     * few words, since each 160 characters are a message of their own.
     *
     * @param before what stands before it
     */
    public String shortBody(Registry registry, Alert alert, String before) {
        ZoneId zone = registry.zoneOf(alert.placeId());
        String site = registry.siteOf(alert.placeId()).map(Site::name).orElse("");
        return before.strip() + (before.isBlank() ? "" : " ") + alert.severity().id() + ": " + alert.summary() + ". "
                + site + ", since " + shortTime(alert.startedAt(), zone) + "." + link(alert);
    }

    /** The text of a text message for an alert that is over. */
    public String shortOver(Registry registry, Alert alert, Instant at) {
        ZoneId zone = registry.zoneOf(alert.placeId());
        return "back to normal: " + alert.summary() + ". Since " + shortTime(at, zone) + "." + link(alert);
    }

    private String link(Alert alert) {
        return settings.addressOrEmpty().isEmpty() ? "" : " " + settings.addressOrEmpty() + "/alerts/" + alert.id();
    }

    private static String shortTime(Instant at, ZoneId zone) {
        return DateTimeFormatter.ofPattern("d MMM HH:mm", Locale.ENGLISH).format(at.atZone(zone));
    }

    /** What is sent where many notices wait for one address, instead of each: its subject. */
    public String gatheredSubject(List<Notice> all) {
        return all.size() + " notices: " + all.getFirst().subject() + " and " + (all.size() - 1) + " more";
    }

    /** The same: its text. */
    public String gatheredBody(List<Notice> all, int shown) {
        boolean held = all.stream().allMatch(Notice::isHeld);
        StringBuilder body = new StringBuilder(
                all.size() + (held ? " notices that waited until now:\n\n" : " notices within a short time:\n\n"));
        body.append(gatheredLines(all, shown));
        if (!settings.addressOrEmpty().isEmpty()) {
            body.append("\nAll alerts: ").append(settings.addressOrEmpty()).append("/alerts\n");
        }
        return body.toString();
    }

    /** A line for each of the first, and how many more there are. */
    public String gatheredLines(List<Notice> all, int shown) {
        StringBuilder lines = new StringBuilder();
        all.stream().limit(shown).forEach(notice -> lines.append(notice.subject())
                .append('\n'));
        if (all.size() > shown) {
            lines.append("and ").append(all.size() - shown).append(" more\n");
        }
        return lines.toString();
    }

    private static void line(StringBuilder body, String name, String value) {
        body.append(String.format(Locale.ROOT, "%-8s%s%n", name + ":", value));
    }

    /**
     * The word that stands for it, where the alert is about the point's own values; else the number with its unit,
     * behind it the one in the reader's unit if that is another. Limits are in the unit that the point is kept in.
     */
    private static String value(Registry registry, Alert alert, double value, DisplayUnits units) {
        Optional<Point> own = registry.find(Point.class, alert.pointId())
                .filter(point -> point.unit().equals(alert.unit()));
        return own.flatMap(point -> Shown.word(PointValues.words(registry, point), value))
                .orElseGet(() -> number(value, 2, alert.unit())
                        + own.filter(point -> !isDifference(registry, alert))
                                .map(units::change)
                                .filter(change -> !change.changesNothing())
                                .map(change -> " (" + number(change.of(value), change.decimals(2), change.to()) + ")")
                                .orElse(""));
    }

    /** Whether its value is how far two values are apart, which no zero of a scale belongs to. */
    private static boolean isDifference(Registry registry, Alert alert) {
        return registry.find(Rule.class, alert.ruleId())
                .map(Rule::measure)
                .filter(Measure::comparesDifferences)
                .isPresent();
    }

    private static String number(double value, int decimals, String unit) {
        return (String.format(Locale.ROOT, "%." + decimals + "f", value) + " " + unit).strip();
    }

    private static String time(Instant at, ZoneId zone) {
        return DateTimeFormatter.ofPattern("d MMM yyyy HH:mm:ss zzz", Locale.ENGLISH)
                .format(at.atZone(zone));
    }
}
