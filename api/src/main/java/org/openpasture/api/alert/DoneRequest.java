package org.openpasture.api.alert;

import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;

/**
 * Ticks off a step of an alert's instructions.
 *
 * @param done whether it is done; false takes the tick back
 */
public record DoneRequest(@Nullable Boolean done) {
    public DoneRequest {
        Require.present(done, "'done'");
    }

    /** Whether it is done. */
    public boolean asBoolean() {
        return Boolean.TRUE.equals(done);
    }
}
