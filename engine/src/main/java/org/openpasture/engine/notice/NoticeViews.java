package org.openpasture.engine.notice;

import org.openpasture.api.alert.NoticeView;
import org.openpasture.store.notice.Notice;

/** How notices are shown. */
public final class NoticeViews {
    private NoticeViews() {}

    /** A notice without its text. */
    public static NoticeView of(Notice notice) {
        return new NoticeView(
                notice.id(),
                notice.alertId(),
                notice.recipient(),
                notice.subject(),
                notice.state().id(),
                notice.attempts(),
                notice.lastError(),
                notice.createdAt(),
                notice.sentAt(),
                notice.state() == Notice.State.WAITING ? notice.nextAt() : null);
    }
}
