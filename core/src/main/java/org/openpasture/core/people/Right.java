package org.openpasture.core.people;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;

/** What a person may do; each right includes the ones before it. */
public enum Right {
    LOOK,
    OPERATE,
    EDIT,
    MANAGE;

    @JsonCreator
    public static Right of(String id) {
        for (Right right : values()) {
            if (right.id().equals(id)) {
                return right;
            }
        }
        throw new IllegalArgumentException("no right '" + id + "'; there are look, operate, edit, manage");
    }

    @JsonValue
    public String id() {
        return name().toLowerCase(Locale.ROOT);
    }

    public boolean includes(Right other) {
        return compareTo(other) >= 0;
    }
}
