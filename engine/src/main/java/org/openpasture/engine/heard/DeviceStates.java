package org.openpasture.engine.heard;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.fleet.DeviceView;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.ConfigurationMode;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.fleet.Power;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.inlet.SenderClock;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.lorawan.MacState;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.Paths;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.band.RadioPlan;
import org.openpasture.store.telemetry.FrameQuery;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.stereotype.Component;

/** How each device was last heard; rebuilt from the frame log at start. */
@Component
public class DeviceStates {
    private static final double NEARLY_EMPTY_PERCENT = 8;

    /**
     * How a device was last heard.
     *
     * @param data whether any data came
     * @param values of its newest data
     * @param configuring since when it says that it is in its configuration mode
     */
    private record State(
            Instant lastHeard,
            @Nullable Reception best,
            long counter,
            long frames,
            long lost,
            @Nullable Double battery,
            @Nullable String problem,
            boolean data,
            String values,
            @Nullable Instant configuring) {}

    private final Map<String, State> states = new ConcurrentHashMap<>();
    private final Map<String, MacState.Status> statuses = new ConcurrentHashMap<>();
    /** By device, how far its clock is ahead, where it certainly is. */
    private final Map<String, Duration> clocksAhead = new ConcurrentHashMap<>();

    private final GatewayStates gateways;
    private final InletStates inlets;
    private final TelemetryStore telemetry;
    private final RadioPlan plan;
    private final Clock clock;

    DeviceStates(GatewayStates gateways, InletStates inlets, TelemetryStore telemetry, RadioPlan plan, Clock clock) {
        this.gateways = gateways;
        this.inlets = inlets;
        this.telemetry = telemetry;
        this.plan = plan;
        this.clock = clock;
    }

    /** Learns from the frame log how everything was heard. */
    public void rebuild(Registry registry) {
        // Nearly always the newest data says it all; a query for each of many thousand devices would take long.
        Set<String> told = new HashSet<>();
        for (Frame frame : telemetry
                .frames()
                .newestData(registry.all(Device.class).stream().map(Device::id).toList())) {
            registry.find(Device.class, frame.deviceId()).ifPresent(device -> {
                note(registry, device, frame, 0);
                told.add(device.id());
            });
        }
        Set<String> silent = new HashSet<>(
                registry.all(Device.class).stream().map(Device::id).toList());
        silent.removeAll(told);
        silent.retainAll(telemetry.frames().devices());
        for (Device device : silent.stream()
                .flatMap(id -> registry.find(Device.class, id).stream())
                .toList()) {
            telemetry.frames().find(FrameQuery.newestOf(device.id(), 40)).reversed().stream()
                    .filter(frame -> !frame.isToDevice())
                    .forEach(frame -> note(registry, device, frame, 0));
        }
    }

    /** Takes a frame that was just heard; says what is news about it. */
    public Optional<String> hear(Registry registry, Device device, Frame frame, long lost) {
        Optional<State> before = Optional.ofNullable(states.get(device.id()));
        note(registry, device, frame, lost);
        if (!isData(frame)) {
            return Optional.empty();
        }
        if (before.filter(State::data).isEmpty()) {
            return Optional.of(device.name() + " was heard for the first time.");
        }
        Instant last = before.get().lastHeard();
        Duration patience = patience(registry.find(DeviceModel.class, device.modelId()));
        Duration away = Duration.between(last, frame.receivedAt());
        return away.compareTo(patience) > 0
                ? Optional.of(device.name() + " is back again, after " + words(away) + ".")
                : Optional.empty();
    }

    /** Whether a device reported, if only that it is there. */
    private static boolean isData(Frame frame) {
        return frame.outcome() == Frame.Outcome.ACCEPTED && (frame.kind().equals(Frame.UPLINK) || frame.isMessage());
    }

    private static String words(Duration away) {
        return away.toHours() >= 48
                ? away.toDays() + " days"
                : away.toMinutes() >= 120
                        ? away.toHours() + " hours"
                        : away.toSeconds() >= 120 ? away.toMinutes() + " minutes" : away.toSeconds() + " seconds";
    }

    /** Takes a frame that says something of a device. */
    public void note(Registry registry, Device device, Frame frame, long lost) {
        boolean accepted = frame.outcome() == Frame.Outcome.ACCEPTED;
        boolean data = isData(frame);
        Optional<Double> battery = registry.find(DeviceModel.class, device.modelId())
                .map(DeviceModel::batteryChannel)
                .flatMap(channel -> value(frame.values(), channel));
        boolean configures = registry.find(DeviceModel.class, device.modelId())
                .map(DeviceModel::configurationMode)
                .map(ConfigurationMode::channel)
                .flatMap(channel -> value(frame.values(), channel))
                .filter(said -> said != 0)
                .isPresent();
        Instant configuring = configures ? frame.receivedAt() : null;
        Reception best =
                frame.receptions().isEmpty() ? null : frame.receptions().getFirst();
        states.merge(
                device.id(),
                new State(
                        frame.receivedAt(),
                        best,
                        frame.counter(),
                        accepted ? 1 : 0,
                        lost,
                        battery.orElse(null),
                        accepted ? null : frame.reason(),
                        data,
                        frame.values(),
                        configuring),
                (was, fresh) -> accepted
                        ? new State(
                                frame.receivedAt(),
                                best,
                                data ? frame.counter() : was.counter(),
                                was.frames() + 1,
                                was.lost() + lost,
                                battery.orElse(was.battery()),
                                null,
                                data || was.data(),
                                frame.values().isEmpty() ? was.values() : frame.values(),
                                frame.values().isEmpty() || configures && was.configuring() != null
                                        ? was.configuring()
                                        : configuring)
                        : new State(
                                was.lastHeard(),
                                was.best(),
                                was.counter(),
                                was.frames(),
                                was.lost(),
                                was.battery(),
                                frame.reason(),
                                was.data(),
                                was.values(),
                                was.configuring()));
        frame.receptions().forEach(reception -> gateways.carries(reception, device.id()));
    }

    private static Optional<Double> value(String values, String channel) {
        return text(values, channel).map(Double::valueOf);
    }

    /** What the device said of itself in answer to the network. */
    public void told(String deviceId, MacState mac) {
        if (mac.status() != null) {
            statuses.put(deviceId, mac.status());
        }
    }

    /** What the times that a device sent say of its clock. */
    public void clock(String deviceId, SenderClock sender) {
        if (sender.isAhead()) {
            clocksAhead.put(deviceId, sender.ahead());
        } else {
            clocksAhead.remove(deviceId);
        }
    }

    /** Gateways that heard a device. */
    public List<Eui64> heardBy(String deviceId) {
        return gateways.gatewaysOf(deviceId);
    }

    /** When a device was last heard; empty if it never was. */
    public Optional<Instant> lastHeard(String deviceId) {
        return Optional.ofNullable(states.get(deviceId)).filter(State::data).map(State::lastHeard);
    }

    /** A device that was removed. */
    public void forget(String deviceId) {
        states.remove(deviceId);
        statuses.remove(deviceId);
        clocksAhead.remove(deviceId);
    }

    public DeviceView view(Registry registry, Device device) {
        Optional<State> state = Optional.ofNullable(states.get(device.id()));
        Optional<DeviceModel> model = registry.find(DeviceModel.class, device.modelId());
        List<Eui64> heardBy = gateways.gatewaysOf(device.id());
        Optional<Double> percent = batteryPercent(model, state.map(State::battery), device.id());
        Condition condition = condition(state, model, heardBy, percent.orElse(100.0), device.inletId());
        Optional<Reception> best = state.map(State::best);
        Instant now = clock.instant();
        return new DeviceView(
                device.id(),
                device.name(),
                device.modelId(),
                model.map(DeviceModel::name).orElse(""),
                device.placeId(),
                Paths.down(registry, device.placeId()),
                device.devEui().orElse(null),
                device.identity().address(),
                device.identity().activation(),
                device.inletId().orElse(null),
                registry.find(Inlet.class, device.inletId().orElse(null))
                        .map(Inlet::name)
                        .orElse(null),
                condition.state(),
                condition.reason(),
                state.map(State::lastHeard).orElse(null),
                best.map(Reception::rssiDbm).orElse(null),
                best.map(Reception::snrDb).orElse(null),
                best.map(Reception::dataRate).orElse(null),
                state.map(State::counter).filter(counter -> counter >= 0).orElse(null),
                state.map(State::frames).orElse(0L),
                state.map(State::lost).orElse(0L),
                state.map(State::battery).orElse(null),
                state.map(State::problem).orElse(null),
                registry.assignmentsOf(device.id()).stream()
                        .filter(assignment -> assignment.holdsAt(now))
                        .map(assignment -> view(registry, assignment))
                        .toList(),
                heardBy.stream()
                        .map(eui -> registry.gateway(eui).map(Gateway::name).orElse(eui.toString()))
                        .toList(),
                percent.orElse(null),
                best.flatMap(heard -> plan.now()
                                .region()
                                .dataRate(heard.dataRate())
                                .map(rate -> rate.marginDb(heard.snrDb())))
                        .orElse(null),
                state.flatMap(one -> text(one.values(), "firmware")).orElse(null),
                state.flatMap(one -> text(one.values(), "hardware")).orElse(null),
                state.map(State::configuring).orElse(null),
                Optional.ofNullable(clocksAhead.get(device.id()))
                        .map(Duration::toSeconds)
                        .orElse(null),
                device.correctsClock());
    }

    private static Optional<String> text(String values, String channel) {
        return Arrays.stream(values.split(" "))
                .filter(pair -> pair.startsWith(channel + "="))
                .map(pair -> pair.substring(channel.length() + 1))
                .findFirst();
    }

    private static DeviceView.AssignmentView view(Registry registry, Assignment assignment) {
        return new DeviceView.AssignmentView(
                assignment.id(),
                assignment.channel(),
                assignment.pointId(),
                registry.find(Point.class, assignment.pointId())
                        .map(Point::name)
                        .orElse("a point that is gone"),
                assignment.calibration());
    }

    /** How long a device may be silent before it counts as missing: three reports, and a little. */
    private static Duration patience(Optional<DeviceModel> model) {
        return model.map(of -> Duration.ofSeconds(of.intervalSeconds() * 3L))
                .orElse(Duration.ofHours(1))
                .plus(Duration.ofSeconds(30));
    }

    private Optional<Double> batteryPercent(Optional<DeviceModel> model, Optional<Double> volts, String deviceId) {
        if (model.map(DeviceModel::power)
                .filter(power -> power.chemistry() == Power.Chemistry.MAINS)
                .isPresent()) {
            return Optional.empty();
        }
        Optional<Double> byVolts = model.map(DeviceModel::power).flatMap(power -> volts.flatMap(power::percent));
        return byVolts.or(() -> Optional.ofNullable(statuses.get(deviceId))
                .map(MacState.Status::battery)
                .filter(level -> level > 0 && level < 255)
                .map(level -> (level - 1) / 253.0 * 100));
    }

    private record Condition(String state, String reason) {}

    private Condition condition(
            Optional<State> found,
            Optional<DeviceModel> model,
            List<Eui64> heardBy,
            double batteryPercent,
            Optional<String> inletId) {
        Optional<String> inletDown = inletId.flatMap(inlets::whyDown);
        if (found.isEmpty()) {
            return new Condition(
                    "never-heard",
                    inletDown.map(why -> "Its inlet takes nothing: " + why).orElse("Nothing was heard from it yet."));
        }
        State state = found.get();
        if (state.frames() == 0) {
            return new Condition("never-heard", "It was heard, but refused: " + state.problem());
        }
        if (!state.data()) {
            return new Condition("joined", "It has joined; its first data is awaited.");
        }
        if (state.lastHeard().isAfter(clock.instant().minus(patience(model)))) {
            return new Condition("online", "It reports as usual.");
        }
        if (inletDown.isPresent()) {
            return new Condition("silent-inlet", "Its inlet takes nothing: " + inletDown.get());
        }
        boolean gatewaySilent = gateways.areAllSilent(heardBy);
        if (!gatewaySilent && batteryPercent < NEARLY_EMPTY_PERCENT) {
            return new Condition("silent-battery", "Its battery was nearly empty when it was last heard.");
        }
        return gatewaySilent
                ? new Condition(
                        "silent-gateway", "Every gateway that heard it is silent too: look at the gateway first.")
                : new Condition(
                        "silent",
                        "It has missed more than three reports, while "
                                + (inletId.isPresent() ? "its inlet is up." : "its gateway is online."));
    }
}
