package org.openpasture.engine.radio;

import java.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.Gateway;
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

    /** Keeps what was sent to a device, or could not be, as a frame of its own. */
    void downlink(
            Device device,
            String kind,
            String address,
            int port,
            byte[] bytes,
            byte[] payload,
            DownlinkSender.Outcome outcome) {
        Frame frame =
                switch (outcome) {
                    case DownlinkSender.Outcome.Sent sent ->
                        frame(
                                device,
                                kind,
                                address,
                                port,
                                -1,
                                bytes,
                                payload,
                                Frame.Outcome.ACCEPTED,
                                inWords(sent),
                                "",
                                List.of());
                    case DownlinkSender.Outcome.NotSent(String why) ->
                        frame(
                                device,
                                kind,
                                address,
                                port,
                                -1,
                                bytes,
                                payload,
                                Frame.Outcome.REFUSED,
                                "not sent: " + why,
                                "",
                                List.of());
                };
        keep(Deposit.of(frame), () -> {});
    }

    Frame frame(
            @Nullable Device device,
            String kind,
            String address,
            int port,
            long counter,
            byte[] bytes,
            byte[] payload,
            Frame.Outcome outcome,
            @Nullable String reason,
            String values,
            List<Reception> receptions) {
        return new Frame(
                0,
                clock.instant(),
                null,
                kind,
                device == null ? null : device.id(),
                null,
                address,
                bytes,
                payload,
                port,
                counter,
                outcome,
                reason,
                values,
                receptions);
    }

    /** Writes, then goes on with what must not happen before; what could not be written is not answered. */
    void keep(Deposit deposit, Runnable then) {
        keeper.keep(deposit).thenRun(then);
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
