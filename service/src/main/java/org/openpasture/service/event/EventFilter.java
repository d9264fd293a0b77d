package org.openpasture.service.event;

import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.limit.Severity;
import org.openpasture.engine.event.EventKind;

/**
 * Which events are looked for. Each part narrows it.
 *
 * @param severities empty for any, with and without
 * @param person part of the name of who did it; null for anybody
 * @param text that stands in it; null for any
 */
record EventFilter(
        Set<EventKind> kinds,
        Set<Severity> severities,
        @Nullable String person,
        @Nullable String text) {

    /** By the parameters of a request. */
    static EventFilter of(
            @Nullable List<String> kinds,
            @Nullable List<String> severities,
            @Nullable String person,
            @Nullable String text) {
        return new EventFilter(
                kinds == null || kinds.isEmpty()
                        ? EnumSet.allOf(EventKind.class)
                        : kinds.stream().map(EventKind::of).collect(Collectors.toSet()),
                severities == null
                        ? Set.of()
                        : severities.stream().map(Severity::of).collect(Collectors.toSet()),
                person,
                text);
    }
}
