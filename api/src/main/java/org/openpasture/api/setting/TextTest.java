package org.openpasture.api.setting;

import org.openpasture.api.problem.Require;
import org.openpasture.core.notice.Recipient;

/** Asks for a test message to a telephone number in international form. */
public record TextTest(String to) {
    public TextTest {
        to = Require.text(to, "the telephone number", 40);
        if (!(Recipient.of(to) instanceof Recipient.Text(String number))) {
            throw new IllegalArgumentException("'" + to + "' is no telephone number such as +44 7700 900123");
        }
        to = number;
    }
}
