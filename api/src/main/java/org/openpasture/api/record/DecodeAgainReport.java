package org.openpasture.api.record;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What reading frames again gives.
 *
 * @param frames that were read
 * @param undecodable of them, by the layout as it is now
 * @param same readings that stay as they are
 * @param changed readings with another value
 * @param added readings where there were none
 * @param differences the first of them
 * @param correctionId by which it can be undone; null for a dry run, or if nothing changed
 */
public record DecodeAgainReport(
        int frames,
        int undecodable,
        int same,
        int changed,
        int added,
        List<Difference> differences,
        @Nullable Long correctionId) {
    /**
     * A reading that would be another.
     *
     * @param before null where there was none
     */
    public record Difference(
            String pointId,
            String point,
            Instant time,
            @Nullable Double before,
            double after) {}
}
