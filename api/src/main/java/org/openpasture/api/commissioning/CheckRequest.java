package org.openpasture.api.commissioning;

import org.openpasture.api.problem.Require;

/** Begins a response check: which point is watched. */
public record CheckRequest(String pointId) {
    public CheckRequest {
        pointId = Require.text(pointId, "the point to watch", 80);
    }
}
