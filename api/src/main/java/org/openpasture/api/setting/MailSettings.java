package org.openpasture.api.setting;

import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;

/**
 * The mail server by which notices go out.
 *
 * @param from sender's address
 * @param user null if the server wants none
 * @param password to set it; never given back
 * @param startTls whether the connection must be encrypted
 */
public record MailSettings(
        String host,
        int port,
        String from,
        @Nullable String user,
        @Nullable String password,
        boolean startTls) {
    public MailSettings {
        host = Require.text(host, "the mail server's address", 200);
        from = Require.text(from, "the sender's address", 200);
        if (port < 1 || port > 65_535) {
            throw new IllegalArgumentException("the mail server's port lies between 1 and 65535");
        }
    }
}
