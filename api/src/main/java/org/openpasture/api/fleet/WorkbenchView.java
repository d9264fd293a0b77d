package org.openpasture.api.fleet;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What a draft of a model reads from captured frames, beside what the live model reads.
 *
 * @param frames the newest first
 * @param same frames that both read alike
 * @param different frames that come out otherwise
 * @param failed frames that the draft cannot read
 */
public record WorkbenchView(List<Tried> frames, int same, int different, int failed) {
    /**
     * One frame.
     *
     * @param payload hex digits
     * @param live what the live model reads, "channel=value"; null if it cannot
     * @param draft what the draft reads; null if it cannot
     * @param problem why the draft cannot
     * @param parts where the draft's channels come from
     */
    public record Tried(
            long frameId,
            Instant time,
            String deviceName,
            int port,
            String payload,
            @Nullable String live,
            @Nullable String draft,
            @Nullable String problem,
            List<Part> parts) {}

    /** The bytes that a channel comes from: found by trial for a script. */
    public record Part(String channel, List<Integer> bytes) {}
}
