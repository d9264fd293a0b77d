package org.openpasture.core.vibration;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;
import org.openpasture.core.entity.Ids;

/** What a spectrum is shown of. */
public enum SpectrumKind {
    VELOCITY,
    ACCELERATION,
    DISPLACEMENT,
    /** Of the envelope of a high band: bearings. */
    ENVELOPE;

    /**
     * The kind of an id such as {@code velocity}.
     *
     * @throws IllegalArgumentException naming the ids there are
     */
    @JsonCreator
    public static SpectrumKind of(String id) {
        return Ids.of(values(), SpectrumKind::id, "kind of spectrum", id);
    }

    @JsonValue
    public String id() {
        return name().toLowerCase(Locale.ROOT);
    }
}
