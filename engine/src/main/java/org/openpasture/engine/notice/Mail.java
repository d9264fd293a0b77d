package org.openpasture.engine.notice;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A mail to one person.
 *
 * @param id from which its Message-ID is made; the same however often it is tried
 * @param thread what the mails of one alert have in common, so that a mail program shows them together; null for none
 * @param text plain; the HTML is made of it
 */
record Mail(
        String id,
        @Nullable String thread,
        String recipient,
        String subject,
        String text,
        List<Attachment> attachments) {
    Mail(String id, @Nullable String thread, String recipient, String subject, String text) {
        this(id, thread, recipient, subject, text, List.of());
    }
}
