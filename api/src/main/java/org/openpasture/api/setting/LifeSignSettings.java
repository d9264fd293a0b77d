package org.openpasture.api.setting;

import java.net.URI;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.notice.Recipient;
import org.openpasture.core.text.WebAddress;

/**
 * Says at intervals that this instance works, so that somebody notices when it does not.
 *
 * @param everyMinutes from 1 minute to 7 days
 * @param url to which it is posted; null for none
 * @param recipients e-mail addresses and telephone numbers; null for none
 */
public record LifeSignSettings(
        int everyMinutes, @Nullable URI url, @Nullable List<String> recipients) {
    private static final int LONGEST = 7 * 24 * 60;
    private static final int MOST = 20;

    public LifeSignSettings {
        if (everyMinutes < 1 || everyMinutes > LONGEST) {
            throw new IllegalArgumentException("a life sign is sent every 1 minute to 7 days");
        }
        recipients = recipients == null ? List.of() : Require.recipients(recipients);
        if (recipients.size() > MOST) {
            throw new IllegalArgumentException("a life sign goes to " + MOST + " addresses at most");
        }
        if (recipients.stream().anyMatch(one -> Recipient.of(one) instanceof Recipient.OfPerson)) {
            throw new IllegalArgumentException("a life sign goes to addresses and numbers, not to accounts");
        }
        if (url != null) {
            WebAddress.checked(url, "the address of a life sign");
        }
        if (url == null && recipients.isEmpty()) {
            throw new IllegalArgumentException("a life sign needs an address, or somebody who gets it");
        }
    }

    /** Who gets it. */
    @Override
    public List<String> recipients() {
        return recipients == null ? List.of() : recipients;
    }
}
