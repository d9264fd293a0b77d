package org.openpasture.core.lorawan;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.entity.Ids;

/**
 * A version of the LoRaWAN link layer that a device model states, as far as the network has to treat it differently.
 */
public enum LorawanVersion {
    V1_0_2("1.0.2"),
    V1_0_3("1.0.3"),
    V1_0_4("1.0.4");

    private final String id;

    LorawanVersion(String id) {
        this.id = id;
    }

    /** As people write it: "1.0.3". */
    @JsonValue
    public String id() {
        return id;
    }

    /**
     * The version that people write so.
     *
     * @throws IllegalArgumentException if there is none
     */
    @JsonCreator
    public static LorawanVersion of(String id) {
        return Ids.of(values(), LorawanVersion::id, "LoRaWAN version", id);
    }

    /**
     * Whether a frame is refused whose counter is more than {@link Uplink#MAX_COUNTER_GAP} ahead. Version 1.0.4 dropped
     * that rule; where the version is not known, a frame with a correct integrity code is not thrown away for it.
     */
    static boolean limitsGap(@Nullable LorawanVersion version) {
        return version == V1_0_2 || version == V1_0_3;
    }

    /** Whether the DevNonce of a join request is a counter that only grows (LoRaWAN L2 1.0.4, 6.2.2). */
    public static boolean countsDevNonce(@Nullable LorawanVersion version) {
        return version == V1_0_4;
    }
}
