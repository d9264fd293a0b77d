package org.openpasture.api.fleet;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.lorawan.Eui64;

/**
 * A device to bring in. One of an inlet has {@code inletId} and {@code address}; the others are LoRaWAN devices: with
 * {@code appKey} it joins over the air; with {@code devAddr} and both session keys it is personalised; without any key
 * it joins with the one from the list of keys that was loaded beforehand.
 *
 * @param placeId what it hangs at
 * @param devEui null for a device of an inlet
 * @param address as it stands in the messages of the inlet
 * @param joinEui only for joining; null for zeros
 * @param makePoints whether to make a point for each channel of its model at once
 */
@JsonIgnoreProperties({"personalised"})
public record DeviceRequest(
        String name,
        String modelId,
        String placeId,
        @Nullable Eui64 devEui,
        @Nullable Eui64 joinEui,
        @Nullable String appKey,
        @Nullable String devAddr,
        @Nullable String nwkSKey,
        @Nullable String appSKey,
        @Nullable String inletId,
        @Nullable String address,
        @Nullable Boolean makePoints) {
    public DeviceRequest {
        name = Require.text(name, "the device's name", 80);
        modelId = Require.text(modelId, "the device model", 80);
        placeId = Require.text(placeId, "the location of the device", 80);
        if (inletId != null) {
            address = Require.text(address, "the address that stands in its messages", 120);
        } else {
            devEui = Require.present(devEui, "the device's EUI");
        }
        boolean some = devAddr != null || nwkSKey != null || appSKey != null;
        if (appKey == null && some && (devAddr == null || nwkSKey == null || appSKey == null)) {
            throw new IllegalArgumentException("a personalised device needs all of devAddr, nwkSKey and appSKey");
        }
    }

    /** A LoRaWAN device that joins; without a key by that of the list. */
    public static DeviceRequest joining(
            String name,
            String modelId,
            String placeId,
            Eui64 devEui,
            @Nullable Eui64 joinEui,
            @Nullable String appKey,
            boolean makePoints) {
        return new DeviceRequest(
                name, modelId, placeId, devEui, joinEui, appKey, null, null, null, null, null, makePoints);
    }

    /** A LoRaWAN device that address and session keys were put into. */
    public static DeviceRequest personalised(
            String name,
            String modelId,
            String placeId,
            Eui64 devEui,
            String devAddr,
            String nwkSKey,
            String appSKey,
            boolean makePoints) {
        return new DeviceRequest(
                name, modelId, placeId, devEui, null, null, devAddr, nwkSKey, appSKey, null, null, makePoints);
    }

    /** A device of an inlet. */
    public static DeviceRequest ofInlet(
            String name, String modelId, String placeId, String inletId, String address, boolean makePoints) {
        return new DeviceRequest(
                name, modelId, placeId, null, null, null, null, null, null, inletId, address, makePoints);
    }

    /** Whether address and session keys were put into it. */
    public boolean isPersonalised() {
        return appKey == null && devAddr != null;
    }
}
