package org.openpasture.api.alert;

import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;

/**
 * Rules as a file, to be applied.
 *
 * @param text the file, as YAML
 * @param dryRun whether only to say what it would do; null for no
 */
public record RuleFileRequest(String text, @Nullable Boolean dryRun) {
    public RuleFileRequest {
        text = Require.present(text, "the text of the file");
    }
}
