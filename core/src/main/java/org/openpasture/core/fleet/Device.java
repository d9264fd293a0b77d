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
 * @param clockCorrected whether the times that it sends are corrected by what its clock is off; null for no
 */
public record Device(
        String id,
        String name,
        String modelId,
        String placeId,
        @JsonAlias("radio") DeviceIdentity identity,
        @Nullable Polling polling,
        @Nullable Boolean clockCorrected)
        implements Entity {
    /** One that is asked as its model says, if it is asked at all. */
    public Device(String id, String name, String modelId, String placeId, DeviceIdentity identity) {
        this(id, name, modelId, placeId, identity, null, null);
    }

    /** The same, asked otherwise than its model says. */
    public Device asked(@Nullable Polling otherPolling) {
        return new Device(id, name, modelId, placeId, identity, otherPolling, clockCorrected);
    }

    /** The same under another name, or at another place. */
    public Device at(String otherName, String otherPlaceId) {
        return new Device(id, otherName, modelId, otherPlaceId, identity, polling, clockCorrected);
    }

    /** The same, with the times that it sends corrected or as they are. */
    public Device correcting(boolean corrects) {
        return new Device(id, name, modelId, placeId, identity, polling, corrects ? true : null);
    }

    /**
     * Whether its clock is known to be wrong: the newest time of each of its messages counts as the time of arrival.
     */
    public boolean correctsClock() {
        return Boolean.TRUE.equals(clockCorrected);
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
