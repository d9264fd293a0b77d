package org.openpasture.core.search;

import org.openpasture.core.registry.Kind;

/**
 * Something registered that fits what somebody looks for.
 *
 * @param name what it is called
 * @param where the places that it belongs to, from the site down; empty if it belongs to none
 */
public record Found(Kind kind, String id, String name, String where) {}
