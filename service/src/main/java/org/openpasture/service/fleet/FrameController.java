package org.openpasture.service.fleet;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.fleet.FrameView;
import org.openpasture.api.place.PointTrace;
import org.openpasture.core.access.Access;
import org.openpasture.core.calibration.Calibration;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Channel;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.inlet.Inlet;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.engine.heard.FrameViews;
import org.openpasture.engine.point.PointViews;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.service.web.Paging;
import org.openpasture.store.telemetry.FrameQuery;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The frame log, and the way back from a value to the frame it came in. */
@RestController
class FrameController {
    private final TelemetryStore telemetry;
    private final FrameViews views;
    private final PointViews points;
    private final Reader reader;

    FrameController(TelemetryStore telemetry, FrameViews views, PointViews points, Reader reader) {
        this.telemetry = telemetry;
        this.views = views;
        this.points = points;
        this.reader = reader;
    }

    /**
     * Frames, the newest first.
     *
     * @param inlet only what came by this inlet
     * @param before only frames with a smaller id, for paging back; after says the same
     */
    @GetMapping("/api/v1/frames")
    ResponseEntity<List<FrameView>> list(
            @RequestParam(required = false) @Nullable String device,
            @RequestParam(required = false) @Nullable String inlet,
            @RequestParam(defaultValue = "false") boolean refused,
            @RequestParam(required = false) @Nullable Long before,
            @RequestParam(required = false) @Nullable Long after,
            @RequestParam(defaultValue = "100") int limit) {
        Access access = reader.access();
        String deviceId = device == null ? null : reader.device(device).id();
        int most = Math.clamp(limit, 1, 1000);
        List<Frame> found = Paging.<Frame, @Nullable Long>fill(
                most + 1,
                after == null ? before : after,
                (from, size) -> telemetry.frames().find(new FrameQuery(deviceId, inlet, refused, from, size)),
                Frame::id,
                frame -> maySee(access, frame));
        return Paging.answer(
                found.stream()
                        .map(frame -> views.view(access.registry(), frame))
                        .toList(),
                most,
                frame -> Long.toString(frame.id()));
    }

    private static boolean maySee(Access access, Frame frame) {
        return access.mayManageInstance()
                || access.registry()
                        .find(Device.class, frame.deviceId())
                        .map(device -> access.may(Right.LOOK, device))
                        .orElseGet(() -> access.registry()
                                        .find(Inlet.class, frame.inletId())
                                        .filter(inlet -> access.may(Right.LOOK, inlet))
                                        .isPresent()
                                || frame.receptions().stream().anyMatch(reception -> access.registry()
                                        .gateway(reception.gateway())
                                        .filter(gateway -> access.may(Right.LOOK, gateway))
                                        .isPresent()));
    }

    @GetMapping("/api/v1/frames/{id}")
    FrameView one(@PathVariable long id) {
        Access access = reader.access();
        return telemetry
                .frames()
                .find(id)
                .filter(frame -> maySee(access, frame))
                .map(frame -> views.view(access.registry(), frame))
                .orElseThrow(() -> Problem.notFound("frame"));
    }

    /** Where the point's newest reading came from. */
    @GetMapping("/api/v1/points/{id}/trace")
    PointTrace trace(@PathVariable String id) {
        Point point = reader.point(id);
        Assignment source =
                points.source(reader.now(), point).orElseThrow(() -> Problem.notFound("device behind this point"));
        Device device = reader.device(source.deviceId());
        DeviceModel model = reader.find(DeviceModel.class, device.modelId(), "device model");
        Optional<Calibration> ofModel = model.channel(source.channel()).map(Channel::calibration);
        Optional<FrameView> frame = telemetry.frames().find(FrameQuery.newestOf(device.id(), 20)).stream()
                .filter(one -> one.values().contains(source.channel() + "="))
                .findFirst()
                .map(one -> views.view(reader.now(), one));
        return new PointTrace(
                device.id(),
                device.name(),
                model.name(),
                source.channel(),
                Optional.ofNullable(source.calibration()).or(() -> ofModel).orElse(null),
                source.calibration() != null,
                frame.orElse(null));
    }
}
