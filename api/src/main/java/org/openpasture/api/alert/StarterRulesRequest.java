package org.openpasture.api.alert;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;

/**
 * Proposed rules that are adopted.
 *
 * @param proposals ids of their rules among the proposals, at least one
 * @param recipients who is told; null for nobody
 */
public record StarterRulesRequest(
        List<String> proposals, @Nullable List<String> recipients) {
    public StarterRulesRequest {
        proposals = List.copyOf(Require.present(proposals, "the list of proposals"));
        if (proposals.isEmpty()) {
            throw new IllegalArgumentException("choose at least one of the proposals");
        }
        if (proposals.stream().distinct().count() < proposals.size()) {
            throw new IllegalArgumentException("a proposal is named twice");
        }
        recipients = recipients == null ? null : Require.recipients(recipients);
    }
}
