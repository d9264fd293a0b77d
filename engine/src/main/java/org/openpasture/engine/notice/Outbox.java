package org.openpasture.engine.notice;

import com.github.f4b6a3.ulid.UlidCreator;
import java.time.Clock;
import org.openpasture.store.notice.Notice;
import org.openpasture.store.notice.NoticeStore;
import org.openpasture.store.registry.RegistryDatabase;
import org.springframework.stereotype.Component;

/**
 * Sends mails that belong to no alert. They are queued on disk first and retried; their text is removed once they are
 * delivered, because it may hold a link that opens a door.
 */
@Component
public class Outbox {
    private final RegistryDatabase database;
    private final NoticeStore notices;
    private final NoticeSender sender;
    private final Clock clock;

    Outbox(RegistryDatabase database, NoticeStore notices, NoticeSender sender, Clock clock) {
        this.database = database;
        this.notices = notices;
        this.sender = sender;
        this.clock = clock;
    }

    /** Queues a mail; it is on disk when this returns. */
    public void mail(String recipient, String subject, String body) {
        database.write(dsl -> {
            notices.add(
                    dsl,
                    Notice.waiting(
                            UlidCreator.getMonotonicUlid().toLowerCase(),
                            null,
                            recipient,
                            subject,
                            body,
                            clock.instant()));
            return true;
        });
        sender.wake();
    }
}
