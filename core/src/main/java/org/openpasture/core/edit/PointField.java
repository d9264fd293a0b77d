package org.openpasture.core.edit;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;
import org.openpasture.core.entity.Ids;
import org.openpasture.core.registry.Paths;

/** What can be changed of many points in a table: a column each. */
public enum PointField {
    NAME,
    /** The names from the site down, with {@value Paths#BETWEEN} between them; or an id. */
    PLACE,
    /** The title of a limit set that holds for the point alone, or its id; empty to inherit. */
    LIMITS,
    DIRECTION,
    /** Words with commas between them. */
    TAGS,
    /** 0 to 6; empty for what is usual. */
    DECIMALS,
    NOTE,
    /** Whether people without the right to edit may see it: yes or no. */
    RELEASED;

    @JsonCreator
    public static PointField of(String id) {
        return Ids.of(values(), PointField::id, "column", id);
    }

    @JsonValue
    public String id() {
        return name().toLowerCase(Locale.ROOT);
    }
}
