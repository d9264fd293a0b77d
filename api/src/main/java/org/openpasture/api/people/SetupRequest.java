package org.openpasture.api.people;

import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.text.PersonName;

/**
 * Makes the owner's account at the first visit, or gives the owner a new password.
 *
 * @param code the one-time code that the service printed
 * @param password at least 10 characters
 */
public record SetupRequest(
        String code, String name, @Nullable String email, String password) {
    public SetupRequest {
        code = Require.text(code, "the one-time code", 100);
        name = PersonName.chosen(Require.text(name, "the name", 80));
        password = Passwords.checked(password);
        Passwords.requireNotGuessed(password, name);
    }
}
