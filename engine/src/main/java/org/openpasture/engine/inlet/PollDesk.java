package org.openpasture.engine.inlet;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.inlet.PollView;
import org.openpasture.core.decoding.ChannelText;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.inlet.Source;
import org.openpasture.core.layout.AskedLayout;
import org.openpasture.core.layout.ChannelValue;
import org.openpasture.core.layout.Decoding;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.decoding.Decoders;
import org.openpasture.inlets.fieldbus.FieldbusAddress;
import org.openpasture.inlets.poll.PollSink;
import org.openpasture.inlets.poll.Target;
import org.springframework.stereotype.Component;

/** Polled devices: which is polled how often, and how the last round went. */
@Component
public class PollDesk {
    private static final String NO_LAYOUT =
            "Its model has neither a register map nor a list of objects: choose one whose layout has the format registers or objects.";
    private final Decoders decoders;
    private final Clock clock;
    /** By the key of a target. */
    private final Map<String, State> states = new ConcurrentHashMap<>();

    /** How the rounds of a target went. */
    private record State(String deviceId, Instant at, PollSink.Round last, long rounds, long late) {}

    PollDesk(Decoders decoders, Clock clock) {
        this.decoders = decoders;
        this.clock = clock;
    }

    /** The devices of an inlet that are to be asked, and groups of their channels with periods of their own. */
    List<Target> targets(Registry now, Inlet inlet) {
        return now.devicesOf(inlet.id()).stream()
                .filter(device -> device.polling() == null || !device.polling().paused())
                .filter(device -> inlet.source() instanceof Source.Polled polled
                        && FieldbusAddress.isOne(polled, device.identity().address()))
                .flatMap(device -> targets(now, device).stream())
                .toList();
    }

    private static List<Target> targets(Registry now, Device device) {
        return layout(now, device)
                .map(layout -> {
                    List<Target> targets = new ArrayList<>();
                    AskedLayout rest = layout.group(null);
                    if (!rest.channels().isEmpty()) {
                        targets.add(new Target(
                                device.id(), device.identity().address(), rest, null, everySeconds(now, device)));
                    }
                    layout.ownPeriods()
                            .forEach(every -> targets.add(new Target(
                                    device.id(), device.identity().address(), layout.group(every), every, every)));
                    return targets;
                })
                .orElse(new ArrayList<>());
    }

    /** All of a device in one; empty if it is paused, or its model says nothing of what it is asked for. */
    public Optional<Target> whole(Registry now, Device device) {
        return layout(now, device)
                .filter(layout -> !isPaused(device))
                .map(layout ->
                        new Target(device.id(), device.identity().address(), layout, null, everySeconds(now, device)));
    }

    private static Optional<AskedLayout> layout(Registry now, Device device) {
        return now.find(DeviceModel.class, device.modelId())
                .map(DeviceModel::layout)
                .filter(AskedLayout.class::isInstance)
                .map(AskedLayout.class::cast);
    }

    private static int everySeconds(Registry now, Device device) {
        Integer own = device.polling() == null ? null : device.polling().everySeconds();
        return own != null
                ? own
                : now.find(DeviceModel.class, device.modelId())
                        .map(DeviceModel::intervalSeconds)
                        .orElse(60);
    }

    /** Notes a round; says whether its problem is another than before, so that it is worth a line in the frame log. */
    boolean note(Target target, PollSink.Round round) {
        State before = states.get(target.key());
        states.merge(
                target.key(),
                new State(target.deviceId(), clock.instant(), round, 1, round.late() ? 1 : 0),
                (was, fresh) ->
                        new State(was.deviceId(), fresh.at(), round, was.rounds() + 1, was.late() + fresh.late()));
        return before == null
                || !before.last().answer().problem().equals(round.answer().problem());
    }

    /** Forgets devices that are gone. */
    void tidy(Registry now) {
        states.values()
                .removeIf(state -> now.find(Device.class, state.deviceId()).isEmpty());
    }

    /** What a device's model reads of a round; empty if it cannot. */
    public List<ChannelValue> values(Registry now, Device device, PollSink.Round round) {
        return now.find(DeviceModel.class, device.modelId())
                .map(model -> decoders.decode(model, 0, round.answer().image(), clock.instant())
                        .join())
                .map(decoding ->
                        decoding instanceof Decoding.Decoded decoded ? decoded.values() : List.<ChannelValue>of())
                .orElse(List.of());
    }

    /** How it goes with a device: one for each of its groups. */
    public List<PollView> views(Registry now, Device device) {
        List<Target> targets = targets(now, device);
        return targets.isEmpty()
                ? List.of(new PollView(
                        device.id(),
                        device.name(),
                        device.identity().address(),
                        null,
                        everySeconds(now, device),
                        isPaused(device),
                        null,
                        0,
                        0,
                        0,
                        NO_LAYOUT,
                        "",
                        List.of()))
                : targets.stream().map(target -> view(now, device, target)).toList();
    }

    private static boolean isPaused(Device device) {
        return device.polling() != null && device.polling().paused();
    }

    private PollView view(Registry now, Device device, Target target) {
        @Nullable State state = states.get(target.key());
        if (state == null) {
            return new PollView(
                    device.id(),
                    device.name(),
                    target.address(),
                    target.group(),
                    target.everySeconds(),
                    isPaused(device),
                    null,
                    0,
                    0,
                    0,
                    "",
                    "",
                    rows(target.layout(), new byte[0], List.of()));
        }
        PollSink.Round last = state.last();
        List<ChannelValue> values = last.answer().something() ? values(now, device, last) : List.of();
        return new PollView(
                device.id(),
                device.name(),
                target.address(),
                target.group(),
                target.everySeconds(),
                isPaused(device),
                state.at(),
                last.took().toMillis(),
                state.rounds(),
                state.late(),
                last.answer().problem(),
                ChannelText.of(values),
                rows(target.layout(), last.answer().image(), values));
    }

    private static List<PollView.Row> rows(AskedLayout layout, byte[] image, List<ChannelValue> values) {
        Map<String, Double> read = values.stream()
                .filter(value -> Double.isFinite(value.value()))
                .collect(Collectors.toMap(ChannelValue::channel, ChannelValue::value, (first, second) -> second));
        return layout.raw(image).stream()
                .map(raw -> new PollView.Row(
                        raw.channel(),
                        raw.where(),
                        raw.text(),
                        read.get(raw.channel()),
                        layout.settable().contains(raw.channel())))
                .toList();
    }
}
