package org.openpasture.core.registry;

import org.openpasture.core.entity.Entity;

/** One step from a registry to the next. */
public sealed interface Change {
    /** Makes an entity, or replaces the one with its id. */
    record Put(Entity entity) implements Change {}

    /** Removes an entity. */
    record Remove(Kind kind, String id) implements Change {}
}
