package org.openpasture.api.alert;

import org.openpasture.api.problem.Require;

/**
 * What stands behind the # of the link in a notice.
 *
 * @param token as it stands there
 */
public record MailTokenRequest(String token) {
    public MailTokenRequest {
        token = Require.text(token, "the code of the link", 2_000);
    }
}
