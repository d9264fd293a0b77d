package org.openpasture.service.radio;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.fleet.DeviceView;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.fleet.RadioIdentity;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.Registry;
import org.openpasture.service.place.Paths;
import org.openpasture.store.telemetry.FrameQuery;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.stereotype.Component;

/** How each device was last heard; rebuilt from the frame log at start. */
@Component
public class DeviceStates {
  private record State(Instant lastHeard, @Nullable Reception best, long counter, long frames, long lost, @Nullable Double battery,
      @Nullable String problem, boolean data) {}

  private final Map<String, State> states = new ConcurrentHashMap<>();
  private final GatewayStates gateways;
  private final TelemetryStore telemetry;
  private final Clock clock;

  DeviceStates(GatewayStates gateways, TelemetryStore telemetry, Clock clock) {
    this.gateways = gateways;
    this.telemetry = telemetry;
    this.clock = clock;
  }

  void rebuild(Registry registry) {
    for (Device device : registry.all(Device.class)) {
      telemetry.frames().find(new FrameQuery(device.id(), false, null, 20)).reversed().forEach(frame -> note(registry, device, frame, 0));
    }
  }

  void note(Registry registry, Device device, Frame frame, long lost) {
    boolean accepted = frame.outcome() == Frame.Outcome.ACCEPTED;
    boolean data = accepted && frame.kind().equals("uplink");
    Optional<Double> battery = registry.find(DeviceModel.class, device.modelId()).map(DeviceModel::batteryChannel)
        .flatMap(channel -> value(frame.values(), channel));
    Reception best = frame.receptions().isEmpty() ? null : frame.receptions().getFirst();
    states.merge(device.id(), new State(frame.receivedAt(), best, frame.counter(), accepted ? 1 : 0, lost, battery.orElse(null),
        accepted ? null : frame.reason(), data), (was, fresh) -> accepted
        ? new State(frame.receivedAt(), best, data ? frame.counter() : was.counter(), was.frames() + 1, was.lost() + lost,
            battery.orElse(was.battery()), null, data || was.data())
        : new State(was.lastHeard(), was.best(), was.counter(), was.frames(), was.lost(), was.battery(), frame.reason(), was.data()));
    frame.receptions().forEach(reception -> gateways.carries(reception, device.id()));
  }

  private static Optional<Double> value(String values, String channel) {
    return Arrays.stream(values.split(" ")).filter(pair -> pair.startsWith(channel + "="))
        .map(pair -> Double.valueOf(pair.substring(channel.length() + 1))).findFirst();
  }

  void forget(String deviceId) {
    states.remove(deviceId);
  }

  public DeviceView view(Registry registry, Device device) {
    Optional<State> state = Optional.ofNullable(states.get(device.id()));
    Optional<DeviceModel> model = registry.find(DeviceModel.class, device.modelId());
    List<Eui64> heardBy = gateways.gatewaysOf(device.id());
    Condition condition = condition(state, model, heardBy);
    Optional<Reception> best = state.map(State::best);
    Instant now = clock.instant();
    return new DeviceView(device.id(), device.name(), device.modelId(), model.map(DeviceModel::name).orElse(""), device.placeId(),
        Paths.down(registry, device.placeId()), device.radio().devEui(),
        device.radio() instanceof RadioIdentity.OverTheAir ? "over-the-air" : "personalised",
        condition.state(), condition.reason(), state.map(State::lastHeard).orElse(null), best.map(Reception::rssiDbm).orElse(null),
        best.map(Reception::snrDb).orElse(null), best.map(Reception::dataRate).orElse(null),
        state.map(State::counter).filter(counter -> counter >= 0).orElse(null), state.map(State::frames).orElse(0L),
        state.map(State::lost).orElse(0L), state.map(State::battery).orElse(null), state.map(State::problem).orElse(null),
        registry.assignmentsOf(device.id()).stream().filter(assignment -> assignment.holdsAt(now))
            .map(assignment -> view(registry, assignment)).toList(),
        heardBy.stream().map(eui -> registry.gateway(eui).map(Gateway::name).orElse(eui.toString())).toList());
  }

  private static DeviceView.AssignmentView view(Registry registry, Assignment assignment) {
    return new DeviceView.AssignmentView(assignment.id(), assignment.channel(), assignment.pointId(),
        registry.find(Point.class, assignment.pointId()).map(Point::name).orElse("a point that is gone"));
  }

  private record Condition(String state, String reason) {}

  private Condition condition(Optional<State> found, Optional<DeviceModel> model, List<Eui64> heardBy) {
    if (found.isEmpty()) {
      return new Condition("never-heard", "Nothing was heard from it yet.");
    }
    State state = found.get();
    if (state.frames() == 0) {
      return new Condition("never-heard", "It was heard, but refused: " + state.problem());
    }
    if (!state.data()) {
      return new Condition("joined", "It has joined; its first data is awaited.");
    }
    Duration patience = model.map(of -> Duration.ofSeconds(of.intervalSeconds() * 3L)).orElse(Duration.ofHours(1))
        .plus(Duration.ofSeconds(30));
    if (state.lastHeard().isAfter(clock.instant().minus(patience))) {
      return new Condition("online", "It reports as usual.");
    }
    boolean gatewaySilent = !heardBy.isEmpty() && heardBy.stream().noneMatch(gateways::isOnline);
    return gatewaySilent
        ? new Condition("silent-gateway", "Every gateway that heard it is silent too: look at the gateway first.")
        : new Condition("silent", "It has missed more than three reports, while its gateway is online.");
  }
}
