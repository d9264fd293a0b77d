package org.openpasture.api.fleet;

import org.openpasture.api.problem.Require;

/** The text of a code on a device's label. */
public record LabelRequest(String text) {
    private static final int LONGEST = 300;

    public LabelRequest {
        text = Require.code(text, "the text of the code", LONGEST);
    }
}
