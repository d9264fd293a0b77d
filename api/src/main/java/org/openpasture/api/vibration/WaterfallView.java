package org.openpasture.api.vibration;

import java.time.Instant;
import java.util.List;
import org.openpasture.core.vibration.SpectrumKind;

/**
 * Spectra one after the other.
 *
 * @param stepHz of two values; value i of a row stands for what lies from {@code fromHz + i * stepHz} to the next
 * @param rows oldest first
 */
public record WaterfallView(SpectrumKind kind, String unit, double fromHz, double stepHz, List<Row> rows) {
    /** One spectrum, the highest RMS of each step. */
    public record Row(Instant time, double[] values) {}
}
