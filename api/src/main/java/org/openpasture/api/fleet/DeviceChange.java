package org.openpasture.api.fleet;

import org.openpasture.api.problem.Require;

/** Gives a device another name, or hangs it at another place. */
public record DeviceChange(String name, String placeId) {
    public DeviceChange {
        name = Require.text(name, "the device's name", 80);
        placeId = Require.text(placeId, "the location of the device", 80);
    }
}
