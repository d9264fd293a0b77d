package org.openpasture.core.edit;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.people.Right;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;

/** Changes of devices that are there: who may, and where they may be placed. {@link BringIn} makes them. */
public final class DeviceEdits {
    private DeviceEdits() {}

    /**
     * Gives a device another name or another place. Its channels go on to feed the same points: these are moved by
     * themselves.
     */
    public static Edited change(Access access, String id, String name, String placeId) {
        return of(
                access,
                id,
                "change this device",
                device -> Edited.unless(
                        (placeId.equals(device.placeId())
                                        ? Optional.<Refused>empty()
                                        : Rights.on(access, Right.EDIT, placeId, "place devices there"))
                                .or(() -> access.registry()
                                        .find(DeviceModel.class, device.modelId())
                                        .flatMap(model -> SharedEdits.usable(access, model, placeId))),
                        () -> Changes.put(device.at(name, placeId))));
    }

    /** Corrects the times that a device sends, or keeps them as they are. */
    public static Edited correctClock(Access access, String id, boolean correct) {
        return of(access, id, "change this device", device -> Changes.put(device.correcting(correct)));
    }

    /** Takes a device out; what it feeds ends, and the points go on. */
    public static Edited remove(Access access, String id, Instant now) {
        return of(access, id, "remove this device", device -> {
            List<Change> steps = new ArrayList<>();
            access.registry().assignmentsOf(id).stream()
                    .filter(assignment -> assignment.until() == null)
                    .forEach(assignment -> steps.add(new Change.Put(assignment.endedAt(now))));
            steps.add(new Change.Remove(Kind.DEVICE, id));
            return new Changes(steps);
        });
    }

    private static Edited of(Access access, String id, String what, Function<Device, Edited> edit) {
        Optional<Device> seen = access.registry().find(Device.class, id).filter(one -> access.may(Right.LOOK, one));
        if (seen.isEmpty()) {
            return Refused.unknown("device");
        }
        return access.may(Right.EDIT, seen.get()) ? edit.apply(seen.get()) : Refused.notAllowed(what);
    }
}
