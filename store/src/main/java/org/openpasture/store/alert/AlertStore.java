package org.openpasture.store.alert;

import static org.openpasture.store.generated.registrydb.Tables.ALERT;
import static org.openpasture.store.generated.registrydb.Tables.ALERT_NOTE;
import static org.openpasture.store.generated.registrydb.Tables.ALERT_STEP;
import static org.openpasture.store.generated.registrydb.Tables.NOTICE;

import java.time.Instant;
import java.util.Collection;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.alert.AlertState;
import org.openpasture.core.alert.Shelf;
import org.openpasture.core.judging.Effect;
import org.openpasture.core.limit.Severity;
import org.openpasture.store.alert.AlertView.Kind;
import org.openpasture.store.alert.AlertView.Step;
import org.openpasture.store.generated.registrydb.tables.records.AlertNoteRecord;
import org.openpasture.store.generated.registrydb.tables.records.AlertRecord;
import org.openpasture.store.generated.registrydb.tables.records.AlertStepRecord;
import org.openpasture.store.notice.Notice;
import org.openpasture.store.registry.RegistryDatabase;
import org.openpasture.store.sqlite.Backwards;

/**
 * Keeps alerts. Carrying out an effect twice changes nothing, because the judging core repeats itself after a crash.
 */
public final class AlertStore {
    private final RegistryDatabase database;

    public AlertStore(RegistryDatabase database) {
        this.database = database;
    }

    /**
     * Removes alerts that were closed before a moment, with their notes and notices, so many at most; returns how many
     * went.
     */
    public int erase(Instant before, int most) {
        return database.write(dsl -> {
            List<String> ids = dsl.select(ALERT.ID)
                    .from(ALERT)
                    .where(ALERT.CLOSED_AT.lt(before.toEpochMilli()))
                    .limit(most)
                    .fetch(ALERT.ID);
            dsl.deleteFrom(ALERT_NOTE).where(ALERT_NOTE.ALERT_ID.in(ids)).execute();
            dsl.deleteFrom(ALERT_STEP).where(ALERT_STEP.ALERT_ID.in(ids)).execute();
            dsl.deleteFrom(NOTICE).where(NOTICE.ALERT_ID.in(ids)).execute();
            return dsl.deleteFrom(ALERT).where(ALERT.ID.in(ids)).execute();
        });
    }

    /** Carries out an effect inside a transaction; says whether anything changed, which is false for a repetition. */
    public boolean apply(DSLContext dsl, Effect effect) {
        return switch (effect) {
            case Effect.Raised(Alert alert) -> insert(dsl, alert);
            case Effect.RaisedShelved(Alert alert, Shelf shelf) ->
                insert(dsl, alert) && shelve(dsl, alert.id(), alert.raisedAt(), shelf);
            case Effect.Shelved(String id, Instant at, Shelf shelf) -> shelve(dsl, id, at, shelf);
            case Effect.Unshelved(String id, Instant at, String person) -> {
                boolean first = dsl.update(ALERT)
                                .setNull(ALERT.SHELVED_UNTIL)
                                .setNull(ALERT.SHELVED_BY)
                                .setNull(ALERT.SHELVED_REASON)
                                .where(ALERT.ID.eq(id), ALERT.SHELVED_BY.isNotNull())
                                .execute()
                        > 0;
                yield first && step(dsl, id, new Step(at, Kind.UNSHELVED, null, null, person, ""));
            }
            case Effect.Worsened(Instant at, Alert alert) -> worsen(dsl, at, alert);
            case Effect.Eased(String id, Instant at, Severity severity, Double value) -> {
                boolean first = dsl.update(ALERT)
                                .set(ALERT.SEVERITY, severity.id())
                                .where(ALERT.ID.eq(id), ALERT.CLOSED_AT.isNull(), ALERT.SEVERITY.ne(severity.id()))
                                .execute()
                        > 0;
                yield first && step(dsl, id, new Step(at, Kind.EASED, severity, value, "", ""));
            }
            case Effect.Acknowledged(String id, Instant at, String person, String note) -> {
                boolean first = dsl.update(ALERT)
                                .set(ALERT.ACKNOWLEDGED_AT, at.toEpochMilli())
                                .set(ALERT.ACKNOWLEDGED_BY, person)
                                .set(
                                        ALERT.STATE,
                                        DSL.when(ALERT.RETURNED_AT.isNull(), AlertState.ACKNOWLEDGED.id())
                                                .otherwise(AlertState.NORMAL.id()))
                                .where(ALERT.ID.eq(id), ALERT.ACKNOWLEDGED_AT.isNull())
                                .execute()
                        > 0;
                if (first) {
                    step(dsl, id, new Step(at, Kind.ACKNOWLEDGED, null, null, person, ""));
                }
                if (first && !note.isBlank()) {
                    addNote(dsl, id, at, person, note);
                }
                yield first;
            }
            case Effect.Returned(String id, Instant at, Double value) -> {
                boolean first = dsl.update(ALERT)
                                .set(ALERT.RETURNED_AT, at.toEpochMilli())
                                .set(ALERT.RETURN_VALUE, value)
                                .set(
                                        ALERT.STATE,
                                        DSL.when(ALERT.ACKNOWLEDGED_AT.isNull(), AlertState.RETURNED.id())
                                                .otherwise(AlertState.NORMAL.id()))
                                .where(ALERT.ID.eq(id), ALERT.RETURNED_AT.isNull())
                                .execute()
                        > 0;
                yield first && step(dsl, id, new Step(at, Kind.RETURNED, null, value, "", ""));
            }
            case Effect.Recurred(String id, Instant at) -> {
                boolean first = dsl.update(ALERT)
                                .setNull(ALERT.RETURNED_AT)
                                .setNull(ALERT.RETURN_VALUE)
                                .set(ALERT.STATE, AlertState.UNACKNOWLEDGED.id())
                                .where(ALERT.ID.eq(id), ALERT.STATE.eq(AlertState.RETURNED.id()))
                                .execute()
                        > 0;
                yield first && step(dsl, id, new Step(at, Kind.RECURRED, null, null, "", ""));
            }
            case Effect.Latched(String id, Instant at) -> {
                boolean first = step(dsl, id, new Step(at, Kind.LATCHED, null, null, "", ""));
                if (first) {
                    dsl.update(ALERT)
                            .setNull(ALERT.ACKNOWLEDGED_AT)
                            .setNull(ALERT.ACKNOWLEDGED_BY)
                            .set(ALERT.STATE, AlertState.RETURNED.id())
                            .where(ALERT.ID.eq(id), ALERT.CLOSED_AT.isNull())
                            .execute();
                }
                yield first;
            }
            case Effect.Closed(String id, Instant at) -> {
                boolean first = dsl.update(ALERT)
                                .set(ALERT.CLOSED_AT, at.toEpochMilli())
                                .set(ALERT.STATE, AlertState.NORMAL.id())
                                .where(ALERT.ID.eq(id), ALERT.CLOSED_AT.isNull())
                                .execute()
                        > 0;
                yield first && step(dsl, id, new Step(at, Kind.CLOSED, null, null, "", ""));
            }
            case Effect.Delayed delayed -> false;
            case Effect.Settled settled -> false;
        };
    }

    private static boolean shelve(DSLContext dsl, String id, Instant at, Shelf shelf) {
        Instant until = shelf.until();
        boolean open = dsl.update(ALERT)
                        .set(ALERT.SHELVED_UNTIL, until == null ? null : until.toEpochMilli())
                        .set(ALERT.SHELVED_BY, shelf.person())
                        .set(ALERT.SHELVED_REASON, shelf.reason())
                        .where(ALERT.ID.eq(id), ALERT.CLOSED_AT.isNull())
                        .execute()
                > 0;
        return open && step(dsl, id, new Step(at, Kind.SHELVED, null, null, shelf.person(), shelf.reason()));
    }

    /** What was acknowledged before is to be looked at again. */
    private static boolean worsen(DSLContext dsl, Instant at, Alert alert) {
        boolean first =
                step(dsl, alert.id(), new Step(at, Kind.WORSENED, alert.severity(), alert.value(), "", alert.limit()));
        if (first) {
            dsl.update(ALERT)
                    .set(ALERT.SEVERITY, alert.severity().id())
                    .set(ALERT.TRIGGER_VALUE, alert.value())
                    .set(ALERT.LIMIT_TEXT, alert.limit())
                    .set(ALERT.SUMMARY, alert.summary())
                    .setNull(ALERT.ACKNOWLEDGED_AT)
                    .setNull(ALERT.ACKNOWLEDGED_BY)
                    .set(ALERT.STATE, AlertState.UNACKNOWLEDGED.id())
                    .where(ALERT.ID.eq(alert.id()), ALERT.CLOSED_AT.isNull())
                    .execute();
        }
        return first;
    }

    /** Keeps a step; false if it is kept already. */
    private static boolean step(DSLContext dsl, String alertId, Step step) {
        return dsl.insertInto(
                                ALERT_STEP,
                                ALERT_STEP.ALERT_ID,
                                ALERT_STEP.AT,
                                ALERT_STEP.KIND,
                                ALERT_STEP.SEVERITY,
                                ALERT_STEP.VALUE,
                                ALERT_STEP.PERSON,
                                ALERT_STEP.TEXT)
                        .values(
                                alertId,
                                step.at().toEpochMilli(),
                                step.kind().id(),
                                step.severity() == null ? null : step.severity().id(),
                                step.value(),
                                step.person(),
                                step.text())
                        .onConflictDoNothing()
                        .execute()
                > 0;
    }

    /** Says who has an alert; nobody if empty. */
    public void assign(String alertId, Instant at, String person, String assignee) {
        database.write(dsl -> {
            dsl.update(ALERT)
                    .set(ALERT.ASSIGNED_TO, assignee.isEmpty() ? null : assignee)
                    .where(ALERT.ID.eq(alertId))
                    .execute();
            return step(dsl, alertId, new Step(at, Kind.ASSIGNED, null, null, person, assignee));
        });
    }

    /** Ticks off a step of an alert's instructions, or takes the tick back. */
    public void tick(String alertId, Instant at, String person, String instruction, boolean isDone) {
        database.write(dsl -> {
            Long last = dsl.select(DSL.max(ALERT_STEP.AT))
                    .from(ALERT_STEP)
                    .where(ALERT_STEP.ALERT_ID.eq(alertId))
                    .fetchOne(DSL.max(ALERT_STEP.AT));
            // Two ticks of one moment would count as one.
            Instant distinct = last == null || last < at.toEpochMilli() ? at : Instant.ofEpochMilli(last + 1);
            return step(
                    dsl,
                    alertId,
                    new Step(distinct, isDone ? Kind.DONE : Kind.UNDONE, null, null, person, instruction));
        });
    }

    private static boolean insert(DSLContext dsl, Alert alert) {
        return dsl.insertInto(
                                        ALERT,
                                        ALERT.ID,
                                        ALERT.RULE_ID,
                                        ALERT.RULE_NAME,
                                        ALERT.SEVERITY,
                                        ALERT.PLACE_ID,
                                        ALERT.POINT_ID,
                                        ALERT.STARTED_AT,
                                        ALERT.RAISED_AT,
                                        ALERT.LEARNT_AT,
                                        ALERT.TRIGGER_VALUE,
                                        ALERT.UNIT,
                                        ALERT.LIMIT_TEXT,
                                        ALERT.SUMMARY,
                                        ALERT.GUIDANCE,
                                        ALERT.CAUSE,
                                        ALERT.STATE)
                                .values(
                                        alert.id(),
                                        alert.ruleId(),
                                        alert.ruleName(),
                                        alert.severity().id(),
                                        alert.placeId(),
                                        alert.pointId(),
                                        alert.startedAt().toEpochMilli(),
                                        alert.raisedAt().toEpochMilli(),
                                        alert.learntAt().toEpochMilli(),
                                        alert.value(),
                                        alert.unit(),
                                        alert.limit(),
                                        alert.summary(),
                                        alert.guidance(),
                                        alert.cause(),
                                        AlertState.UNACKNOWLEDGED.id())
                                .onConflictDoNothing()
                                .execute()
                        > 0
                && step(
                        dsl,
                        alert.id(),
                        new Step(alert.raisedAt(), Kind.RAISED, alert.severity(), alert.value(), "", alert.limit()));
    }

    /** Writes a note to an alert. */
    public void addNote(String alertId, Instant at, String person, String text) {
        database.write(dsl -> addNote(dsl, alertId, at, person, text));
    }

    private static int addNote(DSLContext dsl, String alertId, Instant at, String person, String text) {
        return dsl.insertInto(ALERT_NOTE, ALERT_NOTE.ALERT_ID, ALERT_NOTE.AT, ALERT_NOTE.PERSON, ALERT_NOTE.TEXT)
                .values(alertId, at.toEpochMilli(), person, text)
                .execute();
    }

    /** How many are not closed, by the place that they belong to. */
    public Map<String, Integer> openByPlace() {
        return database.read()
                .select(ALERT.PLACE_ID, DSL.count())
                .from(ALERT)
                .where(ALERT.CLOSED_AT.isNull())
                .groupBy(ALERT.PLACE_ID)
                .fetchMap(ALERT.PLACE_ID, DSL.count());
    }

    /** The ids of those that are not closed. */
    public List<String> open() {
        return database.read()
                .select(ALERT.ID)
                .from(ALERT)
                .where(ALERT.CLOSED_AT.isNull())
                .fetch(ALERT.ID);
    }

    /** How many are not closed, by severity. */
    public Map<Severity, Integer> openBySeverity() {
        Map<Severity, Integer> counts = new EnumMap<>(Severity.class);
        database.read()
                .select(ALERT.SEVERITY, DSL.count())
                .from(ALERT)
                .where(ALERT.CLOSED_AT.isNull())
                .groupBy(ALERT.SEVERITY)
                .forEach(row -> counts.put(Severity.of(row.value1()), row.value2()));
        return counts;
    }

    /**
     * Alerts, the newest first.
     *
     * @param after only those behind this one; null for the newest
     */
    public List<AlertView> list(AlertQuery query, @Nullable Alert after, int limit) {
        Condition wanted = query.openOnly() ? ALERT.CLOSED_AT.isNull() : DSL.noCondition();
        if (query.pointId() != null) {
            wanted = wanted.and(ALERT.POINT_ID.eq(query.pointId()));
        }
        if (query.ruleId() != null) {
            wanted = wanted.and(ALERT.RULE_ID.eq(query.ruleId()));
        }
        if (!query.severities().isEmpty()) {
            wanted = wanted.and(ALERT.SEVERITY.in(
                    query.severities().stream().map(Severity::id).toList()));
        }
        if (query.text() != null) {
            wanted = wanted.and(ALERT.SUMMARY
                    .containsIgnoreCase(query.text())
                    .or(ALERT.RULE_NAME.containsIgnoreCase(query.text())));
        }
        if (query.person() != null) {
            wanted = wanted.and(ALERT.ACKNOWLEDGED_BY
                    .containsIgnoreCase(query.person())
                    .or(ALERT.ASSIGNED_TO.containsIgnoreCase(query.person())));
        }
        if (query.since() != null) {
            wanted = wanted.and(ALERT.RAISED_AT.ge(query.since().toEpochMilli()));
        }
        if (query.until() != null) {
            wanted = wanted.and(ALERT.RAISED_AT.lt(query.until().toEpochMilli()));
        }
        if (after != null) {
            long raised = after.raisedAt().toEpochMilli();
            wanted = wanted.and(
                    ALERT.RAISED_AT.lt(raised).or(ALERT.RAISED_AT.eq(raised).and(ALERT.ID.gt(after.id()))));
        }
        return list(wanted, limit);
    }

    /**
     * Whether somebody was told already of an alert that is not over and has the same cause.
     *
     * @param recipient who was told
     */
    public boolean isToldOf(DSLContext dsl, Alert alert, String recipient) {
        return !alert.cause().isEmpty()
                && dsl.fetchExists(dsl.selectOne()
                        .from(ALERT)
                        .join(NOTICE)
                        .on(NOTICE.ALERT_ID.eq(ALERT.ID))
                        .where(
                                ALERT.CAUSE.eq(alert.cause()),
                                ALERT.ID.ne(alert.id()),
                                ALERT.RETURNED_AT.isNull(),
                                ALERT.CLOSED_AT.isNull(),
                                NOTICE.RECIPIENT.eq(recipient),
                                // What is only to be told later is not told yet.
                                NOTICE.STATE
                                        .ne(Notice.State.WAITING.id())
                                        .or(NOTICE.NEXT_AT.eq(NOTICE.CREATED_AT))
                                        .or(NOTICE.ATTEMPTS.gt(0L))));
    }

    /**
     * Whether an alert had reached its severity before, and nobody has acknowledged it since: then its recipients know.
     *
     * @param at when it reached it this time
     */
    public boolean hadReached(DSLContext dsl, Alert alert, Instant at) {
        Long acknowledged = dsl.select(DSL.max(ALERT_STEP.AT))
                .from(ALERT_STEP)
                .where(ALERT_STEP.ALERT_ID.eq(alert.id()), ALERT_STEP.KIND.eq(Kind.ACKNOWLEDGED.id()))
                .fetchOne(DSL.max(ALERT_STEP.AT));
        return dsl.fetchExists(
                ALERT_STEP,
                ALERT_STEP.ALERT_ID.eq(alert.id()),
                ALERT_STEP.KIND.in(Kind.RAISED.id(), Kind.WORSENED.id()),
                ALERT_STEP.SEVERITY.eq(alert.severity().id()),
                ALERT_STEP.AT.lt(at.toEpochMilli()),
                ALERT_STEP.AT.ge(acknowledged == null ? 0L : acknowledged));
    }

    /** Whether the rule of an alert is set aside. */
    public boolean isShelved(DSLContext dsl, String id) {
        return dsl.fetchExists(ALERT, ALERT.ID.eq(id), ALERT.SHELVED_BY.isNotNull());
    }

    /** Whether an alert holds and nobody has acknowledged it. */
    public boolean isUnacknowledged(DSLContext dsl, String id) {
        return dsl.fetchExists(ALERT, ALERT.ID.eq(id), ALERT.STATE.eq(AlertState.UNACKNOWLEDGED.id()));
    }

    /** An alert as it was raised, seen from within somebody's transaction. */
    public Optional<Alert> find(DSLContext dsl, String id) {
        return dsl.selectFrom(ALERT).where(ALERT.ID.eq(id)).fetchOptional(row -> view(row, List.of(), List.of())
                .alert());
    }

    public Optional<AlertView> find(String id) {
        return list(ALERT.ID.eq(id), 1).stream().findFirst();
    }

    /** A step of an alert, with what the alert is. */
    public record AlertStep(long number, Alert alert, Step step) {}

    /** A note on an alert, with what the alert is. */
    public record AlertNote(long number, Alert alert, AlertView.Note note) {}

    /** What happened to alerts, the newest first. */
    public List<AlertStep> steps(Backwards from) {
        List<AlertStepRecord> rows = database.read()
                .selectFrom(ALERT_STEP)
                .where(from.where(ALERT_STEP.AT, ALERT_STEP.ID), ofAnAlert(ALERT_STEP.ALERT_ID))
                .orderBy(Backwards.order(ALERT_STEP.AT, ALERT_STEP.ID))
                .limit(from.most())
                .fetch();
        Map<String, Alert> alerts =
                alerts(rows.stream().map(AlertStepRecord::getAlertId).toList());
        return rows.stream()
                .flatMap(row -> Optional.ofNullable(alerts.get(row.getAlertId()))
                        .map(alert -> new AlertStep(row.getId(), alert, step(row)))
                        .stream())
                .toList();
    }

    /** What people wrote about alerts, the newest first. */
    public List<AlertNote> notes(Backwards from) {
        List<AlertNoteRecord> rows = database.read()
                .selectFrom(ALERT_NOTE)
                .where(from.where(ALERT_NOTE.AT, ALERT_NOTE.ID), ofAnAlert(ALERT_NOTE.ALERT_ID))
                .orderBy(Backwards.order(ALERT_NOTE.AT, ALERT_NOTE.ID))
                .limit(from.most())
                .fetch();
        Map<String, Alert> alerts =
                alerts(rows.stream().map(AlertNoteRecord::getAlertId).toList());
        return rows.stream()
                .flatMap(row -> Optional.ofNullable(alerts.get(row.getAlertId()))
                        .map(alert -> new AlertNote(row.getId(), alert, note(row)))
                        .stream())
                .toList();
    }

    /** A page is not shorter for what belongs to nothing any more. */
    private static Condition ofAnAlert(Field<String> id) {
        return id.in(DSL.select(ALERT.ID).from(ALERT));
    }

    /** Alerts by their ids, without what happened to them; those that are gone are left out. */
    public Map<String, Alert> alerts(Collection<String> ids) {
        return database.read()
                .selectFrom(ALERT)
                .where(ALERT.ID.in(Set.copyOf(ids)))
                .fetchMap(ALERT.ID, row -> view(row, List.of(), List.of()).alert());
    }

    private static Step step(AlertStepRecord row) {
        return new Step(
                Instant.ofEpochMilli(row.getAt()),
                Kind.valueOf(row.getKind().toUpperCase(Locale.ROOT)),
                row.getSeverity() == null ? null : Severity.of(row.getSeverity()),
                row.getValue(),
                row.getPerson(),
                row.getText());
    }

    private static AlertView.Note note(AlertNoteRecord row) {
        return new AlertView.Note(Instant.ofEpochMilli(row.getAt()), row.getPerson(), row.getText());
    }

    private List<AlertView> list(Condition condition, int limit) {
        DSLContext dsl = database.read();
        List<AlertRecord> rows = dsl.selectFrom(ALERT)
                .where(condition)
                .orderBy(ALERT.RAISED_AT.desc(), ALERT.ID)
                .limit(limit)
                .fetch();
        Map<String, List<AlertView.Note>> notes = dsl.selectFrom(ALERT_NOTE)
                .where(ALERT_NOTE.ALERT_ID.in(
                        rows.stream().map(AlertRecord::getId).toList()))
                .orderBy(ALERT_NOTE.ID)
                .fetchGroups(ALERT_NOTE.ALERT_ID, AlertStore::note);
        Map<String, List<Step>> steps = dsl.selectFrom(ALERT_STEP)
                .where(ALERT_STEP.ALERT_ID.in(
                        rows.stream().map(AlertRecord::getId).toList()))
                .orderBy(ALERT_STEP.AT, ALERT_STEP.ID)
                .fetchGroups(ALERT_STEP.ALERT_ID, AlertStore::step);
        return rows.stream()
                .map(row -> view(
                        row, steps.getOrDefault(row.getId(), List.of()), notes.getOrDefault(row.getId(), List.of())))
                .toList();
    }

    /** While its rule is set aside that is what is said of it, whatever it would be otherwise. */
    private static AlertState state(AlertRecord row) {
        return row.getShelvedBy() == null || row.getClosedAt() != null
                ? AlertState.of(row.getState())
                : row.getShelvedUntil() == null ? AlertState.OUT_OF_SERVICE : AlertState.SHELVED;
    }

    private static @Nullable Shelf shelf(AlertRecord row) {
        return row.getShelvedBy() == null
                ? null
                : new Shelf(instant(row.getShelvedUntil()), row.getShelvedBy(), row.getShelvedReason());
    }

    private static AlertView view(AlertRecord row, List<Step> steps, List<AlertView.Note> notes) {
        Alert alert = new Alert(
                row.getId(),
                row.getRuleId(),
                row.getRuleName(),
                Severity.of(row.getSeverity()),
                row.getPlaceId(),
                row.getPointId(),
                Instant.ofEpochMilli(row.getStartedAt()),
                Instant.ofEpochMilli(row.getRaisedAt()),
                Instant.ofEpochMilli(row.getLearntAt() == null ? row.getRaisedAt() : row.getLearntAt()),
                row.getTriggerValue(),
                row.getUnit(),
                row.getLimitText(),
                row.getSummary(),
                row.getGuidance(),
                row.getCause());
        return new AlertView(
                alert,
                state(row),
                instant(row.getAcknowledgedAt()),
                row.getAcknowledgedBy(),
                instant(row.getReturnedAt()),
                row.getReturnValue(),
                instant(row.getClosedAt()),
                shelf(row),
                row.getAssignedTo(),
                steps,
                notes);
    }

    private static @Nullable Instant instant(@Nullable Long millis) {
        return millis == null ? null : Instant.ofEpochMilli(millis);
    }
}
