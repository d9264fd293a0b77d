package org.openpasture.core.limit;

import org.jspecify.annotations.Nullable;

/**
 * What a limit set says of a value.
 *
 * @param headroomPercent how much of the way from the reference to the next worse boundary is left, 0 to 100; 0 in the
 *     worst zone
 * @param next the nearest boundary to a worse zone, null in the worst zone
 */
public record Judgement(
        Severity severity,
        String zone,
        double headroomPercent,
        @Nullable Boundary next) {
    /** The worse of two by severity, then by headroom: what decides for a machine with several directions. */
    public Judgement worse(Judgement other) {
        int bySeverity = severity.compareTo(other.severity);
        if (bySeverity != 0) {
            return bySeverity > 0 ? this : other;
        }
        return headroomPercent <= other.headroomPercent ? this : other;
    }
}
