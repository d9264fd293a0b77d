package org.openpasture.core.fleet;

import org.jspecify.annotations.Nullable;
import org.openpasture.core.limit.Severity;

/**
 * A channel by which a device says that it found something out of bounds by itself: anything but 0 is an alert, until
 * it says 0 or falls silent.
 *
 * @param severity of the alert
 * @param says what the device means by it, "bearing out of bounds"
 * @param silentAfterSeconds not heard for so long, the alert ends; null for three times the model's usual interval
 */
public record EdgeVerdict(
        Severity severity, String says, @Nullable Integer silentAfterSeconds) {
    public EdgeVerdict {
        if (severity == null || severity == Severity.NORMAL) {
            throw new IllegalArgumentException("what a device finds out of bounds is advisory, warning or critical");
        }
        if (says == null || says.isBlank()) {
            throw new IllegalArgumentException("it has to be told what the device means by it (says)");
        }
        if (silentAfterSeconds != null && silentAfterSeconds < 1) {
            throw new IllegalArgumentException("silent for at least one second");
        }
    }
}
