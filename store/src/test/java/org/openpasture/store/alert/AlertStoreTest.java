package org.openpasture.store.alert;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.alert.AlertState;
import org.openpasture.core.judging.Effect;
import org.openpasture.core.limit.Severity;
import org.openpasture.store.notice.Notice;
import org.openpasture.store.notice.NoticeStore;
import org.openpasture.store.registry.RegistryDatabase;

class AlertStoreTest {
    private static final Instant RAISED = Instant.parse("2026-03-01T08:00:00Z");
    private static final Alert ALERT = new Alert(
            "r-1",
            "r",
            "Zone C",
            Severity.WARNING,
            "pump",
            "p1",
            RAISED.minusSeconds(20),
            RAISED,
            RAISED,
            6.4,
            "mm/s",
            "zone C",
            "Pump: 6.4 mm/s",
            "look");

    @TempDir
    private Path folder;

    private RegistryDatabase database;
    private AlertStore alerts;

    @BeforeEach
    void open() {
        database = RegistryDatabase.open(folder);
        alerts = new AlertStore(database);
    }

    @AfterEach
    void close() {
        database.close();
    }

    private boolean apply(Effect effect) {
        return database.write(dsl -> alerts.apply(dsl, effect));
    }

    private AlertView alert() {
        return alerts.find("r-1").orElseThrow();
    }

    @Test
    void eachStepIsKeptWithItsTime() {
        apply(new Effect.Raised(ALERT));
        assertThat(alert().state()).isEqualTo(AlertState.UNACKNOWLEDGED);
        apply(new Effect.Acknowledged("r-1", RAISED.plusSeconds(60), "ann", "coupling worn"));
        assertThat(alert().state()).isEqualTo(AlertState.ACKNOWLEDGED);
        assertThat(alert().notes()).containsExactly(new AlertView.Note(RAISED.plusSeconds(60), "ann", "coupling worn"));
        apply(new Effect.Returned("r-1", RAISED.plusSeconds(90), 2.0));
        apply(new Effect.Closed("r-1", RAISED.plusSeconds(90)));
        assertThat(alert()).satisfies(view -> {
            assertThat(view.state()).isEqualTo(AlertState.NORMAL);
            assertThat(view.acknowledgedBy()).isEqualTo("ann");
            assertThat(view.returnedAt()).isEqualTo(RAISED.plusSeconds(90));
            assertThat(view.closedAt()).isEqualTo(RAISED.plusSeconds(90));
            assertThat(view.alert()).isEqualTo(ALERT);
        });
        assertThat(alerts.list(AlertQuery.open(null), null, 10)).isEmpty();
        assertThat(alerts.openByPlace()).isEmpty();
        assertThat(alerts.list(AlertQuery.ALL, null, 10)).hasSize(1);
        assertThat(alerts.list(AlertQuery.open("other"), null, 10)).isEmpty();
    }

    @Test
    void carryingEverythingOutAgainChangesNothing() {
        List<Effect> effects = List.of(
                new Effect.Raised(ALERT),
                new Effect.Acknowledged("r-1", RAISED.plusSeconds(60), "ann", "note"),
                new Effect.Returned("r-1", RAISED.plusSeconds(90), 2.0),
                new Effect.Closed("r-1", RAISED.plusSeconds(90)));
        effects.forEach(effect -> assertThat(apply(effect)).isTrue());
        AlertView after = alert();
        effects.forEach(
                effect -> assertThat(apply(effect)).as("again: %s", effect).isFalse());
        assertThat(alert()).isEqualTo(after);
    }

    @Test
    void anAlertThatRecursIsOpenAgain() {
        apply(new Effect.Raised(ALERT));
        apply(new Effect.Returned("r-1", RAISED.plusSeconds(5), 2.0));
        assertThat(alert().state()).isEqualTo(AlertState.RETURNED);
        apply(new Effect.Recurred("r-1", RAISED.plusSeconds(9)));
        assertThat(alert().state()).isEqualTo(AlertState.UNACKNOWLEDGED);
        assertThat(alert().returnedAt()).isNull();
    }

    @Test
    void aNoticeIsPutIntoTheOutboxOnceAndItsDeliveryIsKept() {
        NoticeStore notices = new NoticeStore(database);
        Notice notice = Notice.waiting("r-1/raised/ann", "r-1", "ann@x.example", "subject", "body", RAISED);
        for (int i = 0; i < 2; i++) {
            database.write(dsl -> {
                notices.add(dsl, notice);
                return true;
            });
        }
        assertThat(notices.due(RAISED)).hasSize(1);
        notices.failed(notice.id(), "nothing answers", RAISED.plusSeconds(30), false);
        assertThat(notices.due(RAISED.plusSeconds(29))).isEmpty();
        assertThat(notices.ofAlert("r-1").getFirst()).satisfies(kept -> {
            assertThat(kept.lastError()).isEqualTo("nothing answers");
            assertThat(kept.attempts()).isEqualTo(1);
        });
        notices.tryAgain(RAISED.plusSeconds(1));
        assertThat(notices.due(RAISED.plusSeconds(1))).hasSize(1);
        notices.delivered(notice.id(), RAISED.plusSeconds(2));
        assertThat(notices.recent(5).getFirst().state()).isEqualTo(Notice.State.DELIVERED);
        assertThat(notices.due(RAISED.plusSeconds(600))).isEmpty();
    }

    /** What is to be told later is taken back when somebody has acknowledged, and not hurried by a mended server. */
    @Test
    void whatIsToldLaterIsTakenBack() {
        NoticeStore notices = new NoticeStore(database);
        Notice now = Notice.waiting("r-1/raised/ann", "r-1", "ann@x.example", "", "", RAISED);
        Notice later = Notice.waiting("r-1/raised/after-15/bob", "r-1", "bob@x.example", "", "", RAISED)
                .at(RAISED.plusSeconds(900));
        database.write(dsl -> {
            notices.add(dsl, now);
            notices.add(dsl, later);
            return true;
        });
        notices.tryAgain(RAISED.plusSeconds(1));
        assertThat(notices.due(RAISED.plusSeconds(899))).extracting(Notice::id).containsExactly(now.id());
        assertThat(notices.due(RAISED.plusSeconds(900))).hasSize(2);
        database.write(dsl -> {
            notices.takeBack(dsl, "r-1", RAISED.plusSeconds(60));
            return true;
        });
        assertThat(notices.ofAlert("r-1")).extracting(Notice::id).containsExactly(now.id());
    }

    @Test
    void whatIsLookedForIsFoundByEachOfItsParts() {
        apply(new Effect.Raised(ALERT));
        apply(new Effect.Acknowledged("r-1", RAISED.plusSeconds(5), "Ann", ""));
        AlertQuery fitting = new AlertQuery(
                false,
                ALERT.pointId(),
                ALERT.ruleId(),
                Set.of(ALERT.severity()),
                ALERT.summary().substring(2, 6).toUpperCase(Locale.ROOT),
                "ann",
                RAISED,
                RAISED.plusSeconds(1));
        assertThat(alerts.list(fitting, null, 10)).hasSize(1);
        assertThat(alerts.list(AlertQuery.raised(RAISED.plusSeconds(1), RAISED.plusSeconds(9)), null, 10))
                .isEmpty();
        assertThat(alerts.list(new AlertQuery(false, null, null, Set.of(), "100%", null, null, null), null, 10))
                .as("a sign of the database's own is a sign")
                .isEmpty();
        assertThat(alerts.list(
                        new AlertQuery(false, null, null, Set.of(Severity.ADVISORY), null, null, null, null), null, 10))
                .isEmpty();
    }

    private static Alert silent(String id, String cause) {
        return new Alert(
                id, "q", "Silent", Severity.ADVISORY, "barn", id, RAISED, RAISED, RAISED, null, "", "", id, "", cause);
    }

    /** Forty devices behind one gateway are one message, until they are heard again. */
    @Test
    void ofOneCauseSomebodyIsToldOnce() {
        NoticeStore notices = new NoticeStore(database);
        apply(new Effect.Raised(silent("a", "gateway 1")));
        database.write(dsl -> {
            assertThat(alerts.isToldOf(dsl, silent("a", "gateway 1"), "ann@x.example"))
                    .isFalse();
            notices.add(dsl, Notice.waiting("a/raised/ann", "a", "ann@x.example", "", "", RAISED));
            assertThat(alerts.isToldOf(dsl, silent("b", "gateway 1"), "ann@x.example"))
                    .isTrue();
            assertThat(alerts.isToldOf(dsl, silent("b", "gateway 1"), "bob@x.example"))
                    .isFalse();
            assertThat(alerts.isToldOf(dsl, silent("b", "gateway 2"), "ann@x.example"))
                    .isFalse();
            assertThat(alerts.isToldOf(dsl, silent("b", ""), "ann@x.example")).isFalse();
            return 0;
        });
        apply(new Effect.Returned("a", RAISED.plusSeconds(60), null));
        database.write(dsl -> {
            assertThat(alerts.isToldOf(dsl, silent("c", "gateway 1"), "ann@x.example"))
                    .isFalse();
            return 0;
        });
        assertThat(alerts.find("a").orElseThrow().alert().cause()).isEqualTo("gateway 1");
    }

    /** Around a boundary an alert becomes worse and better; that is told once until somebody has looked. */
    @Test
    void whatWasReachedBeforeIsKnownUntilSomebodyAcknowledges() {
        apply(new Effect.Raised(ALERT));
        Alert worse = new Alert(
                ALERT.id(),
                ALERT.ruleId(),
                ALERT.ruleName(),
                Severity.CRITICAL,
                ALERT.placeId(),
                ALERT.pointId(),
                ALERT.startedAt(),
                ALERT.raisedAt(),
                ALERT.learntAt(),
                9.0,
                ALERT.unit(),
                "zone D",
                "worse",
                "");
        apply(new Effect.Worsened(RAISED.plusSeconds(10), worse));
        assertThat(hadReached(worse, 10)).isFalse();
        apply(new Effect.Eased(ALERT.id(), RAISED.plusSeconds(20), Severity.WARNING, 6.0));
        apply(new Effect.Worsened(RAISED.plusSeconds(30), worse));
        assertThat(hadReached(worse, 30)).isTrue();
        apply(new Effect.Acknowledged(ALERT.id(), RAISED.plusSeconds(40), "ann", ""));
        apply(new Effect.Eased(ALERT.id(), RAISED.plusSeconds(50), Severity.WARNING, 6.0));
        apply(new Effect.Worsened(RAISED.plusSeconds(60), worse));
        assertThat(hadReached(worse, 60)).isFalse();
    }

    private boolean hadReached(Alert alert, long seconds) {
        return database.write(dsl -> alerts.hadReached(dsl, alert, RAISED.plusSeconds(seconds)));
    }
}
