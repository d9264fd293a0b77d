package org.openpasture.api.people;

import org.openpasture.api.problem.Require;

/**
 * Gives oneself another password.
 *
 * @param current the one that holds now
 * @param password the one that holds from then on
 */
public record PasswordRequest(String current, String password) {
    public PasswordRequest {
        current = Require.present(current, "the current password");
        password = Passwords.checked(password);
    }

    @Override
    public String toString() {
        return "PasswordRequest";
    }
}
