package org.openpasture.engine.radio;

import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.fleet.Command;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.frame.Cause;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.lorawan.Downlink;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.lorawan.MacState;
import org.openpasture.core.lorawan.Region;
import org.openpasture.core.lorawan.Session;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.band.RadioPlan;
import org.openpasture.engine.heard.DeviceStates;
import org.openpasture.inlets.gateway.Order;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.telemetry.Deposit;
import org.openpasture.store.telemetry.RadioChange;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.stereotype.Component;

/**
 * Commands to devices: taken from people, given to devices that call in by other ways than radio, and sent at once to
 * those that always listen. What waits for a device's next frame is asked for by {@link RadioNetwork}. What has no
 * other rule is on the network's thread.
 */
@Component
public class CommandDesk {
    /** A device that always listens answers within this time, or did not hear. */
    private static final Duration ALWAYS_ANSWERS_WITHIN = Duration.ofSeconds(10);
    /** So long after the start the gateways have come back that what waited can go out. */
    private static final Duration RESUMES_AFTER = Duration.ofSeconds(3);

    private final RegistryStore registry;
    private final TelemetryStore telemetry;
    private final RadioThread thread;
    private final RadioPlan plan;
    private final SessionTable sessions;
    private final DownlinkSender downlinks;
    private final RadioFrames frames;
    private final DeviceStates devices;
    private final CommandQueue queue;

    CommandDesk(
            RegistryStore registry,
            TelemetryStore telemetry,
            RadioThread thread,
            RadioPlan plan,
            SessionTable sessions,
            DownlinkSender downlinks,
            RadioFrames frames,
            DeviceStates devices,
            Clock clock) {
        this.registry = registry;
        this.telemetry = telemetry;
        this.thread = thread;
        this.plan = plan;
        this.sessions = sessions;
        this.downlinks = downlinks;
        this.frames = frames;
        this.devices = devices;
        this.queue = new CommandQueue(telemetry, telemetry.radioMemory(), clock);
        // What was on its way to a device that always listens when the service ended goes out again by itself.
        queue.devices().forEach(id -> thread.after(RESUMES_AFTER.toNanos(), () -> resume(id)));
    }

    /** On the disk when the next deposit is, since deposits are written in order. */
    private <T> CompletableFuture<T> onDisk(T value) {
        return telemetry.submit(Deposit.of()).thenApply(committed -> value);
    }

    /**
     * Wants a command sent; the future completes with its number when it is on disk, or fails with
     * {@link IllegalArgumentException} saying why it cannot be taken. Any thread may ask.
     */
    public CompletableFuture<Command> want(Command draft) {
        return thread.ask(() -> {
            Command command = queue.want(draft);
            noteWhatDoesNotFit(command);
            sendIfAlwaysListening(command.deviceId());
            frames.tellOfCommands(command.deviceId());
            return onDisk(command);
        });
    }

    /**
     * A device that cannot be reached by radio has called in: what it says that it has taken over is done, and what is
     * wanted of it is given. Any thread may ask.
     *
     * @param reported values by setting
     * @return what it is given, in the order in which it was wanted
     */
    public CompletableFuture<List<Command>> contact(String deviceId, Map<String, Double> reported) {
        return thread.ask(() -> {
            List<Command> now = queue.contact(deviceId, reported);
            if (!now.isEmpty() || !reported.isEmpty()) {
                frames.tellOfCommands(deviceId);
            }
            // What is given is on disk before it is said.
            return onDisk(now);
        });
    }

    /** Whether something is wanted of a device, or was given to it and is not taken over yet. Any thread may ask. */
    public boolean isSomethingWanted(String deviceId) {
        return queue.isBusy(deviceId);
    }

    /** Takes a command back; completes with whether it was not too late. Any thread may ask. */
    public CompletableFuture<Boolean> cancel(Command command, String person) {
        return thread.ask(() -> {
            boolean cancelled = queue.cancel(command.id(), command.deviceId(), person);
            frames.tellOfCommands(command.deviceId());
            return onDisk(cancelled);
        });
    }

    /** How many wait for a device. */
    int count(String deviceId) {
        return queue.count(deviceId);
    }

    /** What is to go out with the answer to a device's frame. */
    Optional<Command> next(String deviceId) {
        return queue.next(deviceId);
    }

    /** A command is longer than the data rate allows at which its device was heard. */
    void tooLong(Command command, String dataRate, int room) {
        queue.tooLong(command, dataRate, room);
    }

    /** A frame of a device came: what was sent to it is acknowledged by it, or was missed. */
    void heard(String deviceId, boolean acknowledges) {
        queue.awaited(deviceId).ifPresent(command -> {
            if (acknowledges) {
                queue.acknowledged(command);
            } else {
                queue.missed(command);
            }
        });
    }

    void sessionBegan(String deviceId) {
        queue.sessionBegan(deviceId);
    }

    void forget(String deviceId) {
        queue.forget(deviceId);
    }

    /** What became of a downlink. */
    void told(Device device, Downlink downlink, @Nullable Command command, DownlinkSender.Outcome outcome) {
        frames.downlink(
                device,
                Frame.DOWNLINK,
                downlink.session().devAddr().toString(),
                command == null ? -1 : command.port(),
                downlink.counter(),
                downlink.bytes(),
                command == null ? new byte[0] : command.payload(),
                outcome);
        if (command != null) {
            switch (outcome) {
                case DownlinkSender.Outcome.Sent sent ->
                    queue.sent(command.id(), device.id(), downlink.counter(), frames.inWords(sent));
                case DownlinkSender.Outcome.NotSent(Cause cause, String why) ->
                    queue.notSent(command.id(), device.id(), why);
            }
            frames.tellOfCommands(device.id());
        }
    }

    static Eui64 eui(Device device) {
        return device.devEui()
                .orElseThrow(() ->
                        new IllegalStateException(device.name() + " has no session, since it does not speak LoRaWAN"));
    }

    static RadioChange moved(Device device, Session session) {
        return new RadioChange.CountersMoved(device.id(), session.lastUp(), session.nextDown());
    }

    private boolean isAlwaysListening(String deviceId) {
        Registry now = registry.now();
        return now.find(Device.class, deviceId)
                .flatMap(one -> now.find(DeviceModel.class, one.modelId()))
                .map(DeviceModel::isAlwaysListening)
                .orElse(false);
    }

    /** After a restart: what was sent to a device that always listens, and not acknowledged, is taken as missed. */
    private void resume(String deviceId) {
        if (isAlwaysListening(deviceId)) {
            queue.awaited(deviceId).ifPresent(queue::missed);
            sendIfAlwaysListening(deviceId);
            frames.tellOfCommands(deviceId);
        }
    }

    /** Says at once of a command that it is too long for the data rate at which its device was heard last. */
    private void noteWhatDoesNotFit(Command command) {
        Optional<LinkedDevice> known = sessions.of(command.deviceId()).filter(link -> !link.heard.isEmpty());
        if (known.isEmpty()) {
            return;
        }
        LinkedDevice link = known.get();
        RadioPlan.Now now = plan.now();
        now.region().dataRate(link.heard.getFirst().dataRate()).ifPresent(rate -> {
            int room = Answer.room(
                    now.region(), rate, link.mac, now.mac().dwell(link.mac).downlink());
            if (command.payload().length > room) {
                queue.tooLong(command, rate.code(), room);
            }
        });
    }

    private void sendIfAlwaysListening(String deviceId) {
        Optional<Device> device = registry.now().find(Device.class, deviceId);
        Optional<LinkedDevice> link = sessions.of(deviceId);
        Optional<Command> next = queue.next(deviceId);
        if (device.isPresent()
                && link.isPresent()
                && next.isPresent()
                && isAlwaysListening(deviceId)
                && queue.awaited(deviceId).isEmpty()) {
            sendNow(device.get(), link.get(), next.get());
        }
    }

    private void sendNow(Device device, LinkedDevice link, Command command) {
        Region region = plan.now().region();
        MacState.Windows windows = link.mac.windows();
        Downlink downlink = Downlink.of(
                link.session,
                new Downlink.Content(
                        command.confirmed(), false, false, false, new byte[0], command.port(), command.payload()));
        link.session = downlink.session();
        Order.Window window = new Order.Window(
                "at once",
                0,
                windows.rx2FrequencyHz(),
                region.dataRate(windows.rx2DataRate()).orElseGet(region::rx2),
                region.powerDbm(windows.rx2FrequencyHz()));
        List<Eui64> gateways = link.heard.isEmpty()
                ? devices.heardBy(device.id())
                : link.heard.stream().map(Reception::gateway).toList();
        telemetry
                .submit(Deposit.of(moved(device, link.session)))
                .thenRun(() -> downlinks.sendNow(downlink.bytes(), eui(device), gateways, window, outcome -> {
                    told(device, downlink, command, outcome);
                    thread.after(ALWAYS_ANSWERS_WITHIN.toNanos(), () -> tryAgain(device.id(), downlink.counter()));
                }));
    }

    /** A device that always listens and did not answer is sent the same once more. */
    private void tryAgain(String deviceId, long counter) {
        queue.awaited(deviceId).filter(command -> command.counter() == counter).ifPresent(queue::missed);
        sendIfAlwaysListening(deviceId);
        frames.tellOfCommands(deviceId);
    }
}
