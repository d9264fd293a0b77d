package org.openpasture.core.people;

import com.fasterxml.jackson.annotation.JsonAlias;
import org.openpasture.core.entity.Entity;

/**
 * The right of a person, or of all in a group, on something; it holds for all below.
 *
 * @param holderId id of the person or of the group
 * @param targetId id of a site, area, asset, device or dashboard
 */
public record Grant(String id, @JsonAlias("personId") String holderId, Right right, String targetId)
        implements Entity {}
