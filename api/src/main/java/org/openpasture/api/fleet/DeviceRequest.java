package org.openpasture.api.fleet;

import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.lorawan.Eui64;

/**
 * A LoRaWAN device to bring in. With {@code appKey} it joins over the air; with {@code devAddr} and both session keys
 * it is personalised.
 *
 * @param placeId what it hangs at
 * @param joinEui only for joining; null for zeros
 * @param makePoints whether to make a point for each channel of its model at once
 */
public record DeviceRequest(String name, String modelId, String placeId, Eui64 devEui, @Nullable Eui64 joinEui,
    @Nullable String appKey, @Nullable String devAddr, @Nullable String nwkSKey, @Nullable String appSKey,
    @Nullable Boolean makePoints) {
  public DeviceRequest {
    name = Require.text(name, "the device's name", 80);
    modelId = Require.text(modelId, "the device model", 80);
    placeId = Require.text(placeId, "the place where the device hangs", 80);
    devEui = Require.present(devEui, "the device's EUI");
    if (appKey == null && (devAddr == null || nwkSKey == null || appSKey == null)) {
      throw new IllegalArgumentException("keys are missing: give the application key (appKey) for a device that joins, or "
          + "devAddr, nwkSKey and appSKey for a personalised one");
    }
  }
}
