package org.openpasture.api.fleet;

import org.jspecify.annotations.Nullable;
import org.openpasture.core.lorawan.Eui64;

/**
 * What a label's code says, and what is known here of the device.
 *
 * @param deviceId of a device that is here already; null if it is not
 * @param keyIsListed whether its key was loaded beforehand
 * @param modelId of the model that has this profile; null if none has
 */
public record LabelView(
        Eui64 joinEui,
        Eui64 devEui,
        String vendorId,
        String profileId,
        @Nullable String serialNumber,
        @Nullable String deviceId,
        @Nullable String deviceName,
        boolean keyIsListed,
        @Nullable String modelId) {}
