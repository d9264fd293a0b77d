package org.openpasture.engine.report;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.time.Duration;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.core.people.Person;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.report.ReportSchedule;
import org.openpasture.core.report.ReportSubject;
import org.openpasture.core.series.CalendarPeriod;
import org.openpasture.engine.TestClock;
import org.openpasture.engine.config.EngineSettings;
import org.openpasture.engine.notice.NotDelivered;
import org.openpasture.engine.notice.Post;
import org.openpasture.engine.point.PointViews;
import org.openpasture.store.alert.AlertStore;
import org.openpasture.store.logbook.LogbookStore;
import org.openpasture.store.registry.RegistryDatabase;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.setting.SettingStore;
import org.openpasture.store.telemetry.TelemetryStore;

/** A report of each day at six, over days, restarts, a mail server that fails and a database that is gone. */
class ScheduledReportsTest {
    @TempDir
    private Path folder;

    /** It begins at eight in the morning of 1 March. */
    private final TestClock clock = new TestClock();

    private final List<String> sent = new ArrayList<>();
    private Optional<NotDelivered> answer = Optional.empty();
    private RegistryDatabase database;
    private RegistryStore registry;
    private TelemetryStore telemetry;

    @BeforeEach
    void open() {
        database = RegistryDatabase.open(folder);
        registry = new RegistryStore(database, clock);
        telemetry = TelemetryStore.open(folder, database.secrets(), clock);
        registry.change(
                "test",
                List.of(
                        new Change.Put(new Site("s", "Creamery", ZoneOffset.UTC, null)),
                        new Change.Put(new Person("1", "anna", "", true)),
                        new Change.Put(new ReportSchedule(
                                "r",
                                new ReportSubject.OfPlace("s"),
                                CalendarPeriod.DAY,
                                LocalTime.of(6, 0),
                                List.of("office@farm.example", "lead@farm.example"),
                                false,
                                true,
                                "1",
                                clock.instant()))));
    }

    @AfterEach
    void close() {
        telemetry.close();
        database.close();
    }

    private void turn() {
        turn(begun());
    }

    private static void turn(ScheduledReports reports) {
        reports.sendWhatIsDue();
    }

    /** As after a start of the service. */
    private ScheduledReports begun() {
        Reports reports = new Reports(
                telemetry,
                new LogbookStore(database),
                new AlertStore(database),
                new PointViews(telemetry, clock),
                clock);
        Post post = (id, recipient, subject, body, files) -> {
            if (answer.isEmpty()) {
                sent.add(recipient.substring(0, recipient.indexOf('@')) + " " + subject + " "
                        + files.getFirst().name());
            }
            return recipient.startsWith("lead")
                            || answer.filter(NotDelivered::isFinal).isEmpty()
                    ? answer
                    : Optional.empty();
        };
        EngineSettings engine = new EngineSettings(folder, null, null, "eu868", 0, null);
        return new ScheduledReports(registry, new SettingStore(database), telemetry, reports, post, engine, clock);
    }

    private String problem() {
        return begun().standing(registry.now().find(ReportSchedule.class, "r").orElseThrow())
                .problem();
    }

    @Test
    void itGoesOutOnceAfterEachDayAndOnlyTheLastOneAfterAPause() {
        turn();
        clock.pass(Duration.ofHours(22).minusSeconds(1));
        turn();
        assertThat(sent).as("a second before six").isEmpty();
        clock.pass(Duration.ofSeconds(1));
        turn();
        turn();
        assertThat(sent)
                .containsExactly(
                        "office Report Creamery, 1 Mar 2026 report Creamery.pdf",
                        "lead Report Creamery, 1 Mar 2026 report Creamery.pdf");
        clock.pass(Duration.ofDays(3));
        turn();
        turn();
        assertThat(sent).hasSize(4).last().asString().contains("4 Mar 2026");
        assertThat(problem()).isEmpty();
    }

    @Test
    void whatDoesNotArriveIsTriedAgainForADayAndThenLeft() {
        answer = Optional.of(new NotDelivered("nothing answers", false));
        clock.pass(Duration.ofHours(22));
        turn();
        assertThat(problem()).isEqualTo("lead@farm.example: nothing answers; office@farm.example: nothing answers");
        turn();
        answer = Optional.empty();
        turn();
        assertThat(sent).as("not yet").isEmpty();
        clock.pass(Duration.ofMinutes(2));
        turn();
        assertThat(sent).hasSize(2);
        assertThat(problem()).isEmpty();

        answer = Optional.of(new NotDelivered("nothing answers", false));
        clock.pass(Duration.ofDays(1));
        for (int hour = 0; hour < 23; hour++) {
            turn();
            clock.pass(Duration.ofHours(1));
        }
        assertThat(problem()).contains("nothing answers");
    }

    @Test
    void whoIsRefusedIsNotTriedAgainAndTheOthersHaveTheirs() {
        answer = Optional.of(new NotDelivered("no such mailbox", true));
        clock.pass(Duration.ofHours(22));
        turn();
        assertThat(problem()).isEqualTo("lead@farm.example: no such mailbox");
        answer = Optional.empty();
        clock.pass(Duration.ofHours(5));
        turn();
        assertThat(sent).isEmpty();
    }

    @Test
    void whoseMakerIsGoneIsSaidAndNotSent() {
        registry.change("test", List.of(new Change.Remove(Kind.PERSON, "1")));
        clock.pass(Duration.ofHours(22));
        turn();
        assertThat(sent).isEmpty();
        assertThat(problem()).contains("is gone");
    }

    /** Where nothing can be kept of it, nobody receives it again and again. */
    @Test
    void nothingIsSentWhileNothingCanBeWritten() {
        ScheduledReports reports = begun();
        clock.pass(Duration.ofHours(22));
        database.close();
        assertThatThrownBy(() -> turn(reports)).isInstanceOf(RuntimeException.class);
        assertThat(sent).isEmpty();
    }
}
