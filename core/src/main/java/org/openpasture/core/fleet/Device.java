package org.openpasture.core.fleet;

import com.fasterxml.jackson.annotation.JsonAlias;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.lorawan.Eui64;

/**
 * What measures. Its keys are not here: they are kept encrypted and never handed out again.
 *
 * @param placeId the site, area or asset that it hangs at
 * @param identity was called radio while there were only radio devices
 * @param polling null for what is not asked, or is asked as its model says
 */
public record Device(
        String id,
        String name,
        String modelId,
        String placeId,
        @JsonAlias("radio") DeviceIdentity identity,
        @Nullable Polling polling)
        implements Entity {
    /** One that is asked as its model says, if it is asked at all. */
    public Device(String id, String name, String modelId, String placeId, DeviceIdentity identity) {
        this(id, name, modelId, placeId, identity, null);
    }

    /** Its EUI if it speaks LoRaWAN. */
    public Optional<Eui64> devEui() {
        return identity instanceof RadioIdentity radio ? Optional.of(radio.devEui()) : Optional.empty();
    }

    /** The inlet that it speaks through; empty for LoRaWAN. */
    public Optional<String> inletId() {
        return identity instanceof DeviceIdentity.OfInlet of ? Optional.of(of.inletId()) : Optional.empty();
    }
}
