package org.openpasture.api.alert;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.alert.AlertState;
import org.openpasture.core.limit.Severity;

/**
 * An alert with all that happened to it, each with its time.
 *
 * @param raisedAt when the condition had held for long enough
 * @param learntAt when we learnt of it; later than that for what a hub handed over after a while
 * @param cause what is behind this and other alerts, such as "gateway 02ab54fffe10a001"; empty for what stands for
 *     itself
 */
public record AlertAnswer(
        String id,
        String ruleId,
        String ruleName,
        Severity severity,
        AlertState state,
        String summary,
        String limit,
        @Nullable Double value,
        String unit,
        String placeId,
        List<String> path,
        @Nullable String pointId,
        Instant startedAt,
        Instant raisedAt,
        Instant learntAt,
        @Nullable Instant acknowledgedAt,
        @Nullable String acknowledgedBy,
        @Nullable Instant returnedAt,
        @Nullable Double returnValue,
        @Nullable Instant closedAt,
        String guidance,
        String cause,
        List<NoteView> notes,
        List<NoticeView> notices) {

    /** What somebody wrote. */
    public record NoteView(Instant at, String person, String text) {}
}
