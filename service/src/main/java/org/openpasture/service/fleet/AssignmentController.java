package org.openpasture.service.fleet;

import java.time.Clock;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.openpasture.api.fleet.AssignmentRequest;
import org.openpasture.api.fleet.CalibrationView;
import org.openpasture.api.fleet.DeviceView;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.AssignmentEdits;
import org.openpasture.core.edit.AssignmentWish;
import org.openpasture.core.fleet.Assignment;
import org.openpasture.core.fleet.Channel;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.reading.Reading;
import org.openpasture.engine.heard.DeviceStates;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Editor;
import org.openpasture.service.access.Reader;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Which channels feed which points, and by which calibration, now and before. */
@RestController
class AssignmentController {
    private final DeviceStates states;
    private final Reader reader;
    private final Editor editor;
    private final Clock clock;

    AssignmentController(DeviceStates states, Reader reader, Editor editor, Clock clock) {
        this.states = states;
        this.reader = reader;
        this.editor = editor;
        this.clock = clock;
    }

    /**
     * Lets a channel feed a point; what fed the point until then ends. Where the channel feeds it already, a time from
     * which it holds begins another stretch with its own calibration; without one the calibration is put right for all
     * of its time.
     */
    @PostMapping("/api/v1/devices/{id}/assignments")
    @ResponseStatus(HttpStatus.CREATED)
    DeviceView assign(@PathVariable String id, @RequestBody AssignmentRequest request) {
        Point point = reader.point(request.pointId());
        AssignmentWish wish = new AssignmentWish.Assign(
                Accounts.newId(),
                id,
                request.channel(),
                point.id(),
                request.calibration(),
                request.from(),
                Optional.ofNullable(request.note()).orElse(""));
        editor.edit(access -> AssignmentEdits.edit(access, wish, clock.instant()));
        return states.view(reader.now(), reader.device(id));
    }

    @DeleteMapping("/api/v1/assignments/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void unassign(@PathVariable String id) {
        editor.edit(access -> AssignmentEdits.edit(access, new AssignmentWish.End(id), clock.instant()));
    }

    /** By which device and which calibration a point was measured, the newest first. */
    @GetMapping("/api/v1/points/{id}/calibrations")
    List<CalibrationView> calibrations(@PathVariable String id) {
        Access access = reader.access();
        return access.registry().assignmentsTo(reader.point(id).id()).stream()
                .sorted(Comparator.comparing(Assignment::from).reversed())
                .map(one -> view(access, one))
                .toList();
    }

    private static CalibrationView view(Access access, Assignment one) {
        Optional<Device> device =
                access.registry().find(Device.class, one.deviceId()).filter(found -> access.may(Right.LOOK, found));
        Optional<Channel> channel = device.flatMap(found -> access.registry().find(DeviceModel.class, found.modelId()))
                .flatMap(model -> model.channel(one.channel()));
        return new CalibrationView(
                one.id(),
                device.map(Device::id).orElse(null),
                device.map(Device::name).orElse(null),
                one.channel(),
                one.from().equals(Reading.EARLIEST) ? null : one.from(),
                one.until(),
                Optional.ofNullable(one.calibration())
                        .or(() -> channel.map(Channel::calibration))
                        .orElse(null),
                one.calibration() != null,
                one.by(),
                one.note());
    }
}
