package org.openpasture.engine.heard;

import java.util.HexFormat;
import java.util.Locale;
import org.openpasture.api.fleet.FrameView;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.registry.Registry;
import org.springframework.stereotype.Component;

/** How frames are shown. */
@Component
public class FrameViews {
    private static String id(Enum<?> of) {
        return of.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** A frame with the names of what it belongs to. */
    public FrameView view(Registry registry, Frame frame) {
        HexFormat hex = HexFormat.of();
        byte[] payload = frame.contents().getLast().payload();
        return new FrameView(
                frame.id(),
                frame.receivedAt(),
                frame.sentAt(),
                frame.kind(),
                frame.deviceId(),
                registry.find(Device.class, frame.deviceId()).map(Device::name).orElse(null),
                frame.inletId(),
                registry.find(Inlet.class, frame.inletId()).map(Inlet::name).orElse(null),
                frame.address(),
                hex.formatHex(frame.bytes()),
                hex.formatHex(payload),
                frame.isMessage()
                        ? MessageText.text(payload.length == 0 ? frame.bytes() : payload)
                                .orElse(null)
                        : null,
                frame.port(),
                frame.counter(),
                frame.outcome() == Frame.Outcome.ACCEPTED,
                id(frame.outcome()),
                frame.cause() == null ? null : id(frame.cause()),
                frame.reason(),
                frame.values(),
                frame.receptions().stream()
                        .map(reception -> new FrameView.Heard(
                                reception.gateway().toString(),
                                registry.gateway(reception.gateway())
                                        .map(Gateway::name)
                                        .orElse(null),
                                reception.rssiDbm(),
                                reception.snrDb(),
                                reception.dataRate(),
                                reception.frequencyHz() / 1e6))
                        .toList());
    }
}
