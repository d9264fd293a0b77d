package org.openpasture.api.people;

import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;

/**
 * Signs somebody in.
 *
 * @param client name of the program that wants a token instead of a cookie, such as "pasture on laptop"; null in a
 *     browser
 */
public record SignInRequest(
        String name, String password, @Nullable String client) {
    public SignInRequest {
        name = Require.text(name, "the name", 80);
        password = Require.present(password, "the password");
    }
}
