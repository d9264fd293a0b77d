package org.openpasture.engine.notice;

import org.openpasture.api.alert.NoticeView;
import org.openpasture.core.notice.NotifiedBrowser;
import org.openpasture.core.notice.Recipient;
import org.openpasture.core.people.Person;
import org.openpasture.core.registry.Registry;
import org.openpasture.store.notice.Notice;

/** How notices are shown. */
public final class NoticeViews {
    private NoticeViews() {}

    /** To whom a notice goes: the address, or the name of a browser and of its person. */
    public static String recipient(Registry now, Notice notice) {
        return Recipient.kept(notice.recipient()) instanceof Recipient.OfBrowser(String id)
                ? now.find(NotifiedBrowser.class, id)
                        .map(browser -> browser.name()
                                + now.find(Person.class, browser.personId())
                                        .map(person -> " of " + person.name())
                                        .orElse(""))
                        .orElse("a browser that is gone")
                : notice.recipient();
    }

    /** A notice without its text. */
    public static NoticeView of(Registry now, Notice notice) {
        return new NoticeView(
                notice.id(),
                notice.alertId(),
                recipient(now, notice),
                notice.subject(),
                notice.state().id(),
                notice.attempts(),
                notice.lastError(),
                notice.createdAt(),
                notice.sentAt(),
                notice.state() == Notice.State.WAITING ? notice.nextAt() : null);
    }
}
