package org.openpasture.api.fleet;

import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.lorawan.Eui64;

/**
 * A LoRaWAN device to bring in. With {@code appKey} it joins over the air; with {@code devAddr} and both session keys
 * it is personalised; without any key it joins with the one from the list of keys that was loaded beforehand.
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
    boolean some = devAddr != null || nwkSKey != null || appSKey != null;
    if (appKey == null && some && (devAddr == null || nwkSKey == null || appSKey == null)) {
      throw new IllegalArgumentException("a personalised device needs all of devAddr, nwkSKey and appSKey");
    }
  }

  /** Whether address and session keys were put into it. */
  public boolean isPersonalised() {
    return appKey == null && devAddr != null;
  }
}
