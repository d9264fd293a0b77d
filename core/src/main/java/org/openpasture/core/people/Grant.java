package org.openpasture.core.people;

import org.openpasture.core.entity.Entity;

/**
 * A person's right on something; it holds for all below.
 *
 * @param targetId id of a site, area, asset, device or dashboard
 */
public record Grant(String id, String personId, Right right, String targetId) implements Entity {}
