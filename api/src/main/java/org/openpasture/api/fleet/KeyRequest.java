package org.openpasture.api.fleet;

import org.openpasture.api.problem.Require;

/** Another application key for a device that joins, 32 hex digits. */
public record KeyRequest(String appKey) {
    public KeyRequest {
        appKey = Require.text(appKey, "the application key", 80);
    }

    @Override
    public String toString() {
        return "KeyRequest";
    }
}
