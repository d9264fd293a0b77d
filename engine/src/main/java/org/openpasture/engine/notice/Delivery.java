package org.openpasture.engine.notice;

import java.util.List;
import java.util.Optional;
import org.openpasture.store.notice.Notice;

/** Hands messages over to what delivers them. For any thread; returns when they are taken or refused. */
interface Delivery {
    /** Sends one notice; returns what went wrong, or nothing. */
    Optional<NotDelivered> send(Notice notice);

    /** Sends several notices to one address as one message. */
    Optional<NotDelivered> send(List<Notice> gathered);
}
