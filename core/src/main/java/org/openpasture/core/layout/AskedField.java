package org.openpasture.core.layout;

import org.jspecify.annotations.Nullable;

/** What is wanted of a device that is asked for one channel. */
public sealed interface AskedField permits RegisterField, ObjectField {
    String channel();

    /** Seconds between two rounds of it; null for the device's own period. */
    @Nullable
    Integer every();

    /** Whether people may set it from here; null for no. */
    @Nullable
    Boolean write();

    /** The same as a plain yes or no. */
    default boolean isSettable() {
        return Boolean.TRUE.equals(write());
    }
}
