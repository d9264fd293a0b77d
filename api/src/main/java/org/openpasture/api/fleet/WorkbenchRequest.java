package org.openpasture.api.fleet;

import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.layout.Layout;

/**
 * A draft to try: on the newest frames of the model's devices, or on bytes that were typed in.
 *
 * @param layout of the draft; null for the live one
 * @param script of the draft; null for the layout, or, without a layout, for what is live
 * @param port of typed bytes
 * @param payload typed bytes in hex digits; null for captured frames
 */
public record WorkbenchRequest(
        String modelId,
        @Nullable Layout layout,
        @Nullable String script,
        @Nullable Integer port,
        @Nullable String payload) {
    public WorkbenchRequest {
        modelId = Require.text(modelId, "the model", 80);
        if (payload != null && !payload.replaceAll("\\s", "").matches("([0-9a-fA-F]{2}){0,255}")) {
            throw new IllegalArgumentException("the payload is hex digits, two for each byte, 255 bytes at most");
        }
    }
}
