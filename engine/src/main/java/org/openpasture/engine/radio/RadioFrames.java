package org.openpasture.engine.radio;

import java.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.frame.Cause;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.frame.Reception;
import org.openpasture.engine.heard.FrameKeeper;
import org.openpasture.engine.live.LiveEvent;
import org.openpasture.engine.live.Watchers;
import org.openpasture.inlets.gateway.Order;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.telemetry.Deposit;
import org.springframework.stereotype.Component;

/** Writes down what the radio network heard and sent, and tells whoever is looking. */
@Component
class RadioFrames {
    private final RegistryStore registry;
    private final FrameKeeper keeper;
    private final Watchers live;
    private final Clock clock;

    RadioFrames(RegistryStore registry, FrameKeeper keeper, Watchers live, Clock clock) {
        this.registry = registry;
        this.keeper = keeper;
        this.live = live;
        this.clock = clock;
    }

    /** How something was sent. */
    String inWords(DownlinkSender.Outcome.Sent sent) {
        Order.Window window = sent.window();
        return "sent " + (window.name().equals("at once") ? window.name() : "in " + window.name()) + " by "
                + registry.now()
                        .gateway(sent.gateway())
                        .map(Gateway::name)
                        .orElse(sent.gateway().toString())
                + String.format(
                        Locale.ROOT,
                        " at %.3f MHz, %s",
                        window.frequencyHz() / 1e6,
                        window.dataRate().code())
                + (sent.confirmed() ? "" : "; the gateway did not say whether it did");
    }

    /**
     * Keeps what was sent to a device, or could not be, as a frame of its own.
     *
     * @param port -1 for none
     * @param counter the downlink counter that it carries; -1 for a join accept
     * @param payload in clear
     */
    void downlink(
            Device device,
            String kind,
            String address,
            int port,
            long counter,
            byte[] bytes,
            byte[] payload,
            DownlinkSender.Outcome outcome) {
        Frame frame = Frame.radio(clock.instant(), kind, address, bytes, List.of())
                .of(device.id())
                .data(port, counter, payload);
        keep(
                Deposit.of(
                        switch (outcome) {
                            case DownlinkSender.Outcome.Sent sent ->
                                frame.became(Frame.Outcome.ACCEPTED, null, inWords(sent));
                            case DownlinkSender.Outcome.NotSent(Cause cause, String why) ->
                                frame.became(Frame.Outcome.REFUSED, cause, "not sent: " + why);
                        }),
                () -> {});
    }

    /** A frame as it came in just now. */
    Frame heard(@Nullable Device device, String kind, String address, byte[] bytes, List<Reception> receptions) {
        return Frame.radio(clock.instant(), kind, address, bytes, receptions).of(device == null ? null : device.id());
    }

    /** Writes, then goes on with what must not happen before; what could not be written is not answered. */
    void keep(Deposit deposit, Runnable then) {
        keep(deposit, then, () -> {});
    }

    /**
     * The same.
     *
     * @param failed what to do if it could not be written
     */
    void keep(Deposit deposit, Runnable then, Runnable failed) {
        keeper.keep(deposit).whenComplete((committed, error) -> {
            if (error == null) {
                then.run();
            } else {
                failed.run();
            }
        });
    }

    /** Something changed in what is sent to a device. */
    void tellOfCommands(String deviceId) {
        if (live.hasSubscribers()) {
            registry.now()
                    .find(Device.class, deviceId)
                    .ifPresent(device -> live.publish(new LiveEvent(
                            "changed", device.placeId(), null, Map.of("what", "commands", "deviceId", deviceId))));
        }
    }
}
