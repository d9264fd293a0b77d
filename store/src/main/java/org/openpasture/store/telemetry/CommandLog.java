package org.openpasture.store.telemetry;

import static org.openpasture.store.generated.telemetrydb.Tables.COMMAND;

import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.openpasture.core.fleet.Command;
import org.openpasture.store.generated.telemetrydb.tables.records.CommandRecord;
import org.openpasture.store.sqlite.Backwards;

/** What people wanted to have sent to devices, and how far it is. */
public final class CommandLog {
    private final Supplier<DSLContext> reader;

    CommandLog(Supplier<DSLContext> reader) {
        this.reader = reader;
    }

    void save(DSLContext dsl, Command command) {
        CommandRecord row = new CommandRecord(
                command.id(),
                command.deviceId(),
                command.wantedAt().toEpochMilli(),
                command.person(),
                command.what(),
                command.setting(),
                command.value(),
                (long) command.port(),
                command.payload(),
                command.confirmed() ? 1L : 0L,
                command.state().id(),
                (long) command.tries(),
                command.counter(),
                command.changedAt().toEpochMilli(),
                command.reason());
        dsl.insertInto(COMMAND)
                .set(row)
                .onConflict(COMMAND.ID)
                .doUpdate()
                .set(row)
                .execute();
    }

    /** Commands that are not done with, in the order in which they were wanted. */
    List<Command> open(DSLContext dsl) {
        List<String> open = Arrays.stream(Command.State.values())
                .filter(state -> !state.isFinal())
                .map(Command.State::id)
                .toList();
        return dsl.selectFrom(COMMAND)
                .where(COMMAND.STATE.in(open))
                .orderBy(COMMAND.ID)
                .fetch(CommandLog::command);
    }

    /** Removes commands that were done with before a moment, so many at most; returns how many went. */
    int erase(DSLContext dsl, Instant before, int most) {
        List<String> done = Arrays.stream(Command.State.values())
                .filter(Command.State::isFinal)
                .map(Command.State::id)
                .toList();
        return dsl.deleteFrom(COMMAND)
                .where(COMMAND.ID.in(DSL.select(COMMAND.ID)
                        .from(COMMAND)
                        .where(COMMAND.STATE.in(done).or(COMMAND.CONFIRMED.eq(0L)))
                        .and(COMMAND.CHANGED_AT.lt(before.toEpochMilli()))
                        // The newest stays, so that no number is given twice.
                        .and(COMMAND.ID.lt(DSL.select(DSL.max(COMMAND.ID)).from(COMMAND)))
                        .limit(most)))
                .execute();
    }

    long lastId(DSLContext dsl) {
        return Optional.ofNullable(dsl.select(DSL.max(COMMAND.ID))
                        .from(COMMAND)
                        .fetchSingle()
                        .value1())
                .orElse(0L);
    }

    /** The newest commands of a device, the newest first. */
    public List<Command> of(String deviceId, int most) {
        return reader.get()
                .selectFrom(COMMAND)
                .where(COMMAND.DEVICE_ID.eq(deviceId))
                .orderBy(COMMAND.ID.desc())
                .limit(most)
                .fetch(CommandLog::command);
    }

    /** Commands by when they were wanted, the newest first. */
    public List<Command> wanted(Backwards from) {
        return reader.get()
                .selectFrom(COMMAND)
                .where(from.where(COMMAND.WANTED_AT, COMMAND.ID))
                .orderBy(Backwards.order(COMMAND.WANTED_AT, COMMAND.ID))
                .limit(from.most())
                .fetch(CommandLog::command);
    }

    public Optional<Command> find(long id) {
        return reader.get().selectFrom(COMMAND).where(COMMAND.ID.eq(id)).fetchOptional(CommandLog::command);
    }

    private static Command command(CommandRecord row) {
        return new Command(
                row.getId(),
                row.getDeviceId(),
                Instant.ofEpochMilli(row.getWantedAt()),
                row.getPerson(),
                row.getWhat(),
                row.getSetting(),
                row.getValue(),
                row.getPort().intValue(),
                row.getPayload(),
                row.getConfirmed() != 0,
                Command.State.of(row.getState()),
                row.getTries().intValue(),
                row.getCounter(),
                Instant.ofEpochMilli(row.getChangedAt()),
                row.getReason());
    }
}
