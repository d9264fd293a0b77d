package org.openpasture.core.edit;

import java.util.Optional;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceModel;
import org.openpasture.core.people.Right;

/** Changes of devices: who may, and where they may hang. */
public final class DeviceEdits {
    private DeviceEdits() {}

    /**
     * Gives a device another name, or hangs it at another place. Its channels go on to feed the same points: these are
     * moved by themselves.
     */
    public static Edited change(Access access, String id, String name, String placeId) {
        Optional<Device> seen = access.registry().find(Device.class, id).filter(one -> access.may(Right.LOOK, one));
        if (seen.isEmpty()) {
            return Refused.unknown("device");
        }
        Device device = seen.get();
        return Edited.unless(
                (access.may(Right.EDIT, device)
                                ? Optional.<Refused>empty()
                                : Optional.of(Refused.notAllowed("change this device")))
                        .or(() -> placeId.equals(device.placeId())
                                ? Optional.empty()
                                : Rights.on(access, Right.EDIT, placeId, "place devices there"))
                        .or(() -> access.registry()
                                .find(DeviceModel.class, device.modelId())
                                .flatMap(model -> SharedEdits.usable(access, model, placeId))),
                () -> Changes.put(device.at(name, placeId)));
    }
}
