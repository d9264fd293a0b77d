package org.openpasture.api.people;

import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * The units in which the reader wants to read values, as a whole.
 *
 * @param units unit by quantity; what is not there is read as it is kept
 * @param system metric or imperial, whose units stand before those by quantity; null for none
 */
public record UnitsRequest(
        @Nullable Map<String, String> units, @Nullable String system) {}
