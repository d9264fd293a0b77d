package org.openpasture.engine.radio;

import java.time.Clock;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedDeque;
import org.openpasture.core.fleet.Command;
import org.openpasture.store.telemetry.Deposit;
import org.openpasture.store.telemetry.RadioChange;
import org.openpasture.store.telemetry.RadioMemory;
import org.openpasture.store.telemetry.TelemetryStore;

/**
 * What waits to be sent to devices, in order; each change is on disk before the next step. On the network's thread. A
 * command that is to be acknowledged is sent three times at most, each time with the device's next frame; one that no
 * gateway could send waits on, and fails after ten times.
 */
final class CommandQueue {
    static final int MOST_TRIES = 3;
    private static final int MOST_FAILURES = 10;
    private static final int MOST_WAITING = 50;

    private final TelemetryStore telemetry;
    private final Clock clock;
    private final Map<String, Deque<Command>> waiting = new ConcurrentHashMap<>();
    private final Map<Long, Integer> failures = new HashMap<>();
    private long lastId;

    CommandQueue(TelemetryStore telemetry, RadioMemory memory, Clock clock) {
        this.telemetry = telemetry;
        this.clock = clock;
        this.lastId = memory.lastCommandId();
        memory.commands().stream()
                .filter(command -> command.confirmed() || command.state() == Command.State.WANTED)
                .forEach(command -> of(command.deviceId()).addLast(command));
    }

    private Deque<Command> of(String deviceId) {
        return waiting.computeIfAbsent(deviceId, key -> new ConcurrentLinkedDeque<>());
    }

    /**
     * Takes a new command; an older wish for the same setting that was not sent yet gives way to it.
     *
     * @throws IllegalArgumentException if far too many wait already
     */
    Command want(Command draft) {
        Deque<Command> queue = of(draft.deviceId());
        if (draft.setting() != null) {
            queue.stream()
                    .filter(one -> draft.setting().equals(one.setting()) && one.state() == Command.State.WANTED)
                    .toList()
                    .forEach(old ->
                            change(old.became(Command.State.CANCELLED, clock.instant(), "another value was wanted")));
        }
        if (queue.size() >= MOST_WAITING) {
            throw new IllegalArgumentException(MOST_WAITING + " commands wait for this device already");
        }
        lastId++;
        Command command = new Command(
                lastId,
                draft.deviceId(),
                clock.instant(),
                draft.person(),
                draft.what(),
                draft.setting(),
                draft.value(),
                draft.port(),
                draft.payload(),
                draft.confirmed(),
                Command.State.WANTED,
                0,
                -1,
                clock.instant(),
                draft.reason());
        queue.addLast(command);
        keep(command);
        return command;
    }

    /** The first that waits to be sent. */
    Optional<Command> next(String deviceId) {
        return waiting.containsKey(deviceId)
                ? of(deviceId).stream()
                        .filter(command -> command.state() == Command.State.WANTED)
                        .findFirst()
                : Optional.empty();
    }

    /** Devices for which something waits. */
    List<String> devices() {
        return waiting.entrySet().stream()
                .filter(entry -> !entry.getValue().isEmpty())
                .map(Map.Entry::getKey)
                .toList();
    }

    /** A command does not fit at the data rate at which its device was heard; it waits for a faster one. */
    void tooLong(Command command, String dataRate, int room) {
        String words = "It has " + command.payload().length + " bytes; at " + dataRate + " the device takes " + room
                + ". It waits until the device uses a faster data rate.";
        if (!words.equals(command.reason())) {
            change(command.became(command.state(), clock.instant(), words));
        }
    }

    int count(String deviceId) {
        return waiting.containsKey(deviceId)
                ? (int) of(deviceId).stream()
                        .filter(command -> command.state() == Command.State.WANTED)
                        .count()
                : 0;
    }

    /** The command that was sent and whose acknowledgement is awaited. */
    Optional<Command> awaited(String deviceId) {
        return waiting.containsKey(deviceId)
                ? of(deviceId).stream()
                        .filter(command -> command.state() == Command.State.SENT && command.confirmed())
                        .findFirst()
                : Optional.empty();
    }

    /** It was sent. */
    void sent(long id, String deviceId, long counter, String how) {
        find(id, deviceId).ifPresent(command -> {
            failures.remove(id);
            change(command.with(
                    Command.State.SENT,
                    command.tries() + 1,
                    counter,
                    clock.instant(),
                    command.confirmed() ? how + "; its acknowledgement is awaited" : how));
        });
    }

    /** No gateway could send it. */
    void notSent(long id, String deviceId, String why) {
        find(id, deviceId).ifPresent(command -> {
            boolean enough = failures.merge(id, 1, Integer::sum) >= MOST_FAILURES;
            change(command.became(
                    enough ? Command.State.FAILED : Command.State.WANTED,
                    clock.instant(),
                    enough
                            ? "no gateway could send it in " + MOST_FAILURES + " tries: " + why
                            : "could not be sent: " + why + ". It is tried again"));
        });
    }

    /** A device has called in; gives all that is wanted of it. */
    List<Command> contact(String deviceId, Map<String, Double> reported) {
        for (Command command : List.copyOf(of(deviceId))) {
            Double now = command.setting() == null ? null : reported.get(command.setting());
            if (command.state() == Command.State.SENT && now != null && command.value() != null) {
                if (Math.abs(now - command.value()) <= 1e-6 * Math.max(1, Math.abs(now))) {
                    change(command.became(Command.State.ACKNOWLEDGED, clock.instant(), "the device has taken it over"));
                } else {
                    missed(command);
                }
            }
        }
        List<Command> wanted = of(deviceId).stream()
                .filter(command -> command.state() == Command.State.WANTED)
                .toList();
        wanted.forEach(command -> change(command.with(
                Command.State.SENT,
                command.tries() + 1,
                -1,
                clock.instant(),
                "given in the answer to its last contact; it has not said yet that it has taken it over")));
        return wanted;
    }

    /** Whether anything is not done with. Any thread may ask. */
    boolean isBusy(String deviceId) {
        Deque<Command> of = waiting.get(deviceId);
        return of != null && !of.isEmpty();
    }

    void acknowledged(Command command) {
        change(command.became(Command.State.ACKNOWLEDGED, clock.instant(), "the device acknowledged it"));
    }

    /** The device has sent, but did not acknowledge. */
    void missed(Command command) {
        boolean enough = command.tries() >= MOST_TRIES;
        change(command.became(
                enough ? Command.State.FAILED : Command.State.WANTED,
                clock.instant(),
                enough
                        ? "not acknowledged after " + MOST_TRIES + " tries"
                        : "not acknowledged; it is sent again with the next frame"));
    }

    /** Takes a command back; says whether it was not too late. */
    boolean cancel(long id, String deviceId, String person) {
        Optional<Command> found = find(id, deviceId).filter(command -> command.state() == Command.State.WANTED);
        found.ifPresent(
                command -> change(command.became(Command.State.CANCELLED, clock.instant(), "taken back by " + person)));
        return found.isPresent();
    }

    /** The device has joined anew: what was on its way is to be sent again. */
    void sessionBegan(String deviceId) {
        awaited(deviceId)
                .ifPresent(command -> change(command.with(
                        Command.State.WANTED,
                        command.tries(),
                        -1,
                        clock.instant(),
                        "the device has joined anew; it is sent again")));
    }

    void forget(String deviceId) {
        waiting.remove(deviceId);
    }

    private Optional<Command> find(long id, String deviceId) {
        return waiting.containsKey(deviceId)
                ? of(deviceId).stream().filter(command -> command.id() == id).findFirst()
                : Optional.empty();
    }

    private void change(Command next) {
        Deque<Command> queue = of(next.deviceId());
        List<Command> now = queue.stream()
                .map(command -> command.id() == next.id() ? next : command)
                .filter(command ->
                        !(command.state().isFinal() || command.state() == Command.State.SENT && !command.confirmed()))
                .toList();
        queue.clear();
        queue.addAll(now);
        keep(next);
    }

    private void keep(Command command) {
        telemetry.submit(Deposit.of(new RadioChange.CommandChanged(command.deviceId(), command)));
    }
}
