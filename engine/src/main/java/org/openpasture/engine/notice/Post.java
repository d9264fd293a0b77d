package org.openpasture.engine.notice;

import java.util.List;
import java.util.Optional;

/** Sends mails with files. For any thread; returns when the server has taken the mail or refused it. */
public interface Post {
    /**
     * Sends one mail; returns what went wrong, or nothing.
     *
     * @param id the same for what is tried again
     */
    Optional<NotDelivered> send(String id, String recipient, String subject, String body, List<Attachment> attachments);
}
