package org.openpasture.api.place;

import org.openpasture.api.problem.Require;

/** An area to make or change. */
public record AreaRequest(String name, String parentId) {
    public AreaRequest {
        name = Require.text(name, "the area's name", 80);
        parentId = Require.text(parentId, "the site or area that it is a part of", 80);
    }
}
