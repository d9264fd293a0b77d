package org.openpasture.core.people;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;
import org.openpasture.core.entity.Ids;

/** What a person may do; each right includes the ones before it. */
public enum Right {
    LOOK,
    OPERATE,
    EDIT,
    MANAGE;

    @JsonCreator
    public static Right of(String id) {
        return Ids.of(values(), Right::id, "right", id);
    }

    @JsonValue
    public String id() {
        return name().toLowerCase(Locale.ROOT);
    }

    public boolean includes(Right other) {
        return compareTo(other) >= 0;
    }
}
