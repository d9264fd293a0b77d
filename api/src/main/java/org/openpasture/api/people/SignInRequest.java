package org.openpasture.api.people;

import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;

/**
 * Signs somebody in.
 *
 * @param client name of the program that wants a token instead of a cookie, such as "pasture on laptop"; null in a
 *     browser
 * @param code of the authenticator app, or a recovery code, for who has a second factor; else null
 */
public record SignInRequest(
        String name,
        String password,
        @Nullable String client,
        @Nullable String code) {
    public SignInRequest {
        name = Require.text(name, "the name", 80);
        password = Require.present(password, "the password");
    }

    /** Without a code. */
    public SignInRequest(String name, String password, @Nullable String client) {
        this(name, password, client, null);
    }
}
