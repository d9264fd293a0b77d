package org.openpasture.api.baseline;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;

/**
 * Records a baseline for each of several points: over a time that is past, or from now on.
 *
 * @param pointIds ids or numbers of the points, 1 to 100
 * @param name of the condition the machine was in
 * @param good whether that is a good condition; null for yes
 * @param reference whether the points are compared with it; null for yes if it is a good one
 * @param from where its time begins; null for now
 * @param until where it ends; null if {@code seconds} says it
 * @param seconds how long it lasts; null if {@code until} says it
 * @param note why; null for none
 */
public record BaselineRequest(
        List<String> pointIds,
        String name,
        @Nullable Boolean good,
        @Nullable Boolean reference,
        @Nullable Instant from,
        @Nullable Instant until,
        @Nullable Long seconds,
        @Nullable String note) {
    private static final int MOST = 100;

    public BaselineRequest {
        pointIds = List.copyOf(Require.present(pointIds, "the list of points"));
        name = Require.text(name, "the name of the condition", 100);
        note = note == null || note.isBlank() ? "" : Require.text(note, "the note", 500);
        if (pointIds.isEmpty() || pointIds.size() > MOST) {
            throw new IllegalArgumentException("a baseline is recorded for 1 to " + MOST + " points at once");
        }
        if ((until == null) == (seconds == null)) {
            throw new IllegalArgumentException("say until when the baseline lasts, or for how many seconds");
        }
        if (seconds != null && (seconds < 1 || seconds > 366L * 86_400)) {
            throw new IllegalArgumentException("a baseline lasts 1 minute to 366 days");
        }
    }
}
