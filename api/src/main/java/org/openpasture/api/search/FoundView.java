package org.openpasture.api.search;

import org.openpasture.core.search.Found;

/**
 * Something that fits what somebody looks for.
 *
 * @param kind what it is: site, area, asset, point, device, gateway, inlet, outlet, rule, dashboard, limit-set or
 *     device-model
 * @param where the places that it belongs to, from the site down; empty if it belongs to none
 */
public record FoundView(String kind, String id, String name, String where) {
    public static FoundView of(Found found) {
        return new FoundView(found.kind().id(), found.id(), found.name(), found.where());
    }
}
