package org.openpasture.api.alert;

import org.jspecify.annotations.Nullable;

/**
 * Says who has an alert.
 *
 * @param person the name of a person who may see it; null for nobody
 */
public record AssignRequest(@Nullable String person) {}
