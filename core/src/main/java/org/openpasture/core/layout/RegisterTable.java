package org.openpasture.core.layout;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import org.openpasture.core.entity.Ids;

/**
 * The four tables of the Modbus data model (application protocol 1.1b3, 4.3), with the most that one request may read
 * of each.
 */
public enum RegisterTable {
    /** Single bits that can be written; function 1. */
    COIL("coil", 2_000),
    /** Single bits that can only be read; function 2. */
    DISCRETE("discrete", 2_000),
    /** Words of 16 bits that can be written; function 3. */
    HOLDING("holding", 125),
    /** Words of 16 bits that can only be read; function 4. */
    INPUT("input", 125);

    private final String id;
    private final int most;

    RegisterTable(String id, int most) {
        this.id = id;
        this.most = most;
    }

    @JsonCreator
    public static RegisterTable of(String id) {
        return Ids.of(values(), RegisterTable::id, "table", id);
    }

    @JsonValue
    public String id() {
        return id;
    }

    /** How many bits or words one request may read. */
    public int most() {
        return most;
    }

    public boolean isBits() {
        return this == COIL || this == DISCRETE;
    }
}
