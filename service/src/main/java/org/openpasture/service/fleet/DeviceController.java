package org.openpasture.service.fleet;

import java.time.Clock;
import java.util.List;
import org.openpasture.api.fleet.ClockRequest;
import org.openpasture.api.fleet.DeviceChange;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.fleet.DeviceView;
import org.openpasture.api.fleet.KeyRequest;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.DeviceEdits;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.RadioIdentity;
import org.openpasture.core.lorawan.AesKey;
import org.openpasture.core.people.Right;
import org.openpasture.engine.heard.DeviceStates;
import org.openpasture.engine.radio.RadioKeys;
import org.openpasture.engine.radio.RadioNetwork;
import org.openpasture.service.access.Editor;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Devices. */
@RestController
class DeviceController {
    private final RegistryStore registry;
    private final DeviceStates states;
    private final RadioNetwork network;
    private final RadioKeys keys;
    private final BringingIn bringIn;
    private final Reader reader;
    private final Editor editor;
    private final Clock clock;

    DeviceController(
            RegistryStore registry,
            DeviceStates states,
            RadioNetwork network,
            RadioKeys keys,
            BringingIn bringIn,
            Reader reader,
            Editor editor,
            Clock clock) {
        this.editor = editor;
        this.registry = registry;
        this.states = states;
        this.network = network;
        this.keys = keys;
        this.bringIn = bringIn;
        this.reader = reader;
        this.clock = clock;
    }

    @GetMapping("/api/v1/devices")
    List<DeviceView> list() {
        Access access = reader.access();
        return access.registry().all(Device.class).stream()
                .filter(device -> access.may(Right.LOOK, device))
                .map(device -> states.view(access.registry(), device))
                .toList();
    }

    @GetMapping("/api/v1/devices/{id}")
    DeviceView one(@PathVariable String id) {
        return states.view(reader.now(), reader.device(id));
    }

    /** Brings a device in; with {@code makePoints} each channel of its model gets a point at once, not yet released. */
    @PostMapping("/api/v1/devices")
    @ResponseStatus(HttpStatus.CREATED)
    DeviceView make(@RequestBody DeviceRequest request) {
        Device made = bringIn.bringIn(request);
        // Asked for after it was made, so that the answer names the points that were made with it.
        return states.view(registry.now(), made);
    }

    /** Gives a device another name or another place. */
    @PutMapping("/api/v1/devices/{id}")
    DeviceView change(@PathVariable String id, @RequestBody DeviceChange request) {
        editor.edit(access -> DeviceEdits.change(access, id, request.name(), request.placeId()));
        return one(id);
    }

    /** Gives a device that joins another application key; it takes effect with its next join request. */
    @PutMapping("/api/v1/devices/{id}/key")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void changeKey(@PathVariable String id, @RequestBody KeyRequest request) {
        Device device = reader.device(id);
        reader.require(Right.EDIT, device.placeId(), "change the key of this device");
        if (!(device.identity() instanceof RadioIdentity.OverTheAir)) {
            throw Problem.invalid(
                    "this device does not join, so that it has no application key. Remove it and bring it in anew");
        }
        keys.save(id, AesKey.ofHex(request.appKey()));
    }

    /** Whether the times that a device sends are corrected by what its clock is off. */
    @PutMapping("/api/v1/devices/{id}/clock")
    DeviceView correctClock(@PathVariable String id, @RequestBody ClockRequest request) {
        editor.edit(access -> DeviceEdits.correctClock(access, id, request.correct()));
        return one(id);
    }

    @DeleteMapping("/api/v1/devices/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String id) {
        editor.edit(access -> DeviceEdits.remove(access, id, clock.instant()));
        keys.forget(id);
        network.forget(id);
    }
}
