package org.openpasture.api.setting;

import org.openpasture.api.problem.Require;

/** Asks for a test message. */
public record MailTest(String to) {
    public MailTest {
        to = Require.text(to, "the address for the test message", 200);
    }
}
