package org.openpasture.api.trail;

import java.time.Instant;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * One change, and who made it.
 *
 * @param person their name, or what they signed in with
 * @param kind of what was changed, such as rule or device; sign-in for sign-ins
 * @param id of what was changed
 * @param name what it is called, empty where it has no name
 * @param action made, changed, removed; signed in, refused, signed out
 * @param source the address it came from; empty for what the service did by itself and for what is older than that
 * @param changes each part that is another now, with before and after; null where it was not there
 */
public record TrailView(
        long number,
        Instant at,
        String person,
        String kind,
        String id,
        String name,
        String action,
        String source,
        Map<String, Difference> changes) {
    /** One part of it before and after. */
    public record Difference(
            @Nullable Object before, @Nullable Object after) {}
}
