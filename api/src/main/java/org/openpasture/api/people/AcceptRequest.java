package org.openpasture.api.people;

import org.openpasture.api.problem.Require;
import org.openpasture.core.text.PersonName;

/**
 * Takes an invitation up.
 *
 * @param token from the link
 * @param name to sign in with
 */
public record AcceptRequest(String token, String name, String password) {
    public AcceptRequest {
        token = Require.text(token, "the invitation", 200);
        name = PersonName.chosen(Require.text(name, "the name", 80));
        password = Passwords.checked(password);
        Passwords.requireNotGuessed(password, name);
    }
}
