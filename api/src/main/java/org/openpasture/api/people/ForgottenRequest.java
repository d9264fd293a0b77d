package org.openpasture.api.people;

import org.openpasture.api.problem.Require;

/**
 * Somebody forgot a password.
 *
 * @param name that they sign in with
 */
public record ForgottenRequest(String name) {
    public ForgottenRequest {
        name = Require.text(name, "the name", 80);
    }
}
