package org.openpasture.api.alert;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.alert.AlertState;
import org.openpasture.core.alert.Shelf;
import org.openpasture.core.limit.Severity;

/**
 * An alert with all that happened to it, each with its time.
 *
 * @param raisedAt when the condition had held for long enough
 * @param learntAt when we learnt of it; later than that for what a hub handed over after a while
 * @param shelf how its rule is set aside: until when (null for out of service), by whom, why; null if it is not
 * @param assignedTo who has it; null for nobody
 * @param instructions the lines of the guidance, with the steps that were ticked off
 * @param steps all that happened to it, in order
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
        @Nullable Shelf shelf,
        @Nullable String assignedTo,
        String guidance,
        List<InstructionView> instructions,
        String cause,
        List<StepView> steps,
        List<NoteView> notes,
        List<NoticeView> notices) {

    /**
     * Something that happened to an alert.
     *
     * @param kind raised, worsened, eased, acknowledged, returned, recurred, shelved, unshelved, assigned, done, undone
     *     or closed
     * @param severity that the alert has had since then; null where that did not change
     * @param value of the deciding point then; null where it is not known
     * @param person who did it; empty where nobody did
     * @param text the limit that was crossed, the reason, to whom it was assigned, or which step is done
     */
    public record StepView(
            Instant at,
            String kind,
            @Nullable Severity severity,
            @Nullable Double value,
            String person,
            String text) {}

    /**
     * A line of what is to be done.
     *
     * @param number by which it is ticked off, from 1; 0 for a line that is text only
     * @param doneAt when it was ticked off; null if it is not
     * @param doneBy who did it; empty if it is not
     */
    public record InstructionView(
            int number, String text, @Nullable Instant doneAt, String doneBy) {}

    /** What somebody wrote. */
    public record NoteView(Instant at, String person, String text) {}
}
