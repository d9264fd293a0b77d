package org.openpasture.api.people;

import org.openpasture.api.problem.Require;

/**
 * Chooses another password with the code that was sent by mail.
 *
 * @param token from the mail
 */
public record ResetRequest(String token, String password) {
    public ResetRequest {
        token = Require.text(token, "the code from the mail", 200);
        password = Passwords.checked(password);
    }

    @Override
    public String toString() {
        return "ResetRequest";
    }
}
