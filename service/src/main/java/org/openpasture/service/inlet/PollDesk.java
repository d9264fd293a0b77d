package org.openpasture.service.inlet;

import java.time.Clock;
import java.time.Instant;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.inlet.PollView;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.layout.ChannelValue;
import org.openpasture.core.layout.Decoding;
import org.openpasture.core.layout.RegisterLayout;
import org.openpasture.core.registry.Registry;
import org.openpasture.inlets.modbus.ModbusAddress;
import org.openpasture.inlets.poll.PollSink;
import org.openpasture.inlets.poll.Target;
import org.openpasture.service.decoding.ChannelText;
import org.openpasture.service.decoding.Decoders;
import org.springframework.stereotype.Component;

/** Devices that are asked: who is asked how often, and how that went. */
@Component
class PollDesk {
  private final Decoders decoders;
  private final Clock clock;
  private final Map<String, State> states = new ConcurrentHashMap<>();

  /** How the rounds of a device went. */
  private record State(Instant at, PollSink.Round last, long rounds, long late) {}

  PollDesk(Decoders decoders, Clock clock) {
    this.decoders = decoders;
    this.clock = clock;
  }

  /** The devices of an inlet that are to be asked. */
  List<Target> targets(Registry now, Inlet inlet) {
    return now.devicesOf(inlet.id()).stream().filter(device -> device.polling() == null || !device.polling().paused())
        .flatMap(device -> layout(now, device).stream().map(layout -> new Target(device.id(), device.identity().address(), layout, everySeconds(now, device))))
        .filter(target -> !(inlet.source() instanceof Source.ModbusTcp) || ModbusAddress.isOne(target.address())).toList();
  }

  private static Optional<RegisterLayout> layout(Registry now, Device device) {
    return now.find(DeviceModel.class, device.modelId()).map(DeviceModel::layout).filter(RegisterLayout.class::isInstance).map(RegisterLayout.class::cast);
  }

  private static int everySeconds(Registry now, Device device) {
    Integer own = device.polling() == null ? null : device.polling().everySeconds();
    return own != null ? own : now.find(DeviceModel.class, device.modelId()).map(DeviceModel::intervalSeconds).orElse(60);
  }

  /** Notes a round; says whether its problem is another than before, so that it is worth a line in the frame log. */
  boolean note(String deviceId, PollSink.Round round) {
    State before = states.get(deviceId);
    states.merge(deviceId, new State(clock.instant(), round, 1, round.late() ? 1 : 0),
        (was, fresh) -> new State(fresh.at(), round, was.rounds() + 1, was.late() + fresh.late()));
    return before == null || !before.last().problem().equals(round.problem());
  }

  /** Forgets devices that are gone. */
  void tidy(Registry now) {
    states.keySet().removeIf(id -> now.find(Device.class, id).isEmpty());
  }

  /** What a device's model reads of a round, "channel=value"; empty if it cannot. */
  String values(Registry now, Device device, PollSink.Round round) {
    return now.find(DeviceModel.class, device.modelId()).map(model -> decoders.decode(model, 0, round.image().toBytes(), clock.instant()).join())
        .map(decoding -> decoding instanceof Decoding.Decoded(List<ChannelValue> read) ? ChannelText.of(read) : "").orElse("");
  }

  PollView view(Registry now, Device device) {
    @Nullable State state = states.get(device.id());
    boolean paused = device.polling() != null && device.polling().paused();
    if (state == null) {
      return new PollView(device.id(), device.name(), device.identity().address(), everySeconds(now, device), paused, null, 0, 0, 0,
          layout(now, device).isEmpty() ? "Its model has no register map: choose one whose layout has the format registers." : "", "", List.of());
    }
    PollSink.Round last = state.last();
    return new PollView(device.id(), device.name(), device.identity().address(), everySeconds(now, device), paused, state.at(), last.took().toMillis(),
        state.rounds(), state.late(), last.problem(), values(now, device, last), last.image().blocks().stream()
        .map(block -> new PollView.Block(block.table().id(), block.from(), HexFormat.of().formatHex(block.data()))).toList());
  }
}
