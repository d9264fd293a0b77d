package org.openpasture.api.inlet;

import org.jspecify.annotations.Nullable;

/**
 * A message to try on an inlet, without anything being kept of it.
 *
 * @param text as it would come; null for hex digits, or without them for the newest that came
 * @param hex null for text
 * @param topic that it would come by; null for none
 */
public record TrialRequest(
        @Nullable String text,
        @Nullable String hex,
        @Nullable String topic) {
    private static final int LONGEST = 100_000;

    public TrialRequest {
        if (text != null && text.length() > LONGEST || hex != null && hex.length() > 2 * LONGEST) {
            throw new IllegalArgumentException("a message to try has " + LONGEST + " bytes at most");
        }
        if (hex != null && !hex.replaceAll("[\\s:]", "").matches("([0-9a-fA-F]{2})*")) {
            throw new IllegalArgumentException("bytes are written as hex digits, two for each");
        }
    }
}
