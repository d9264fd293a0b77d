package org.openpasture.engine.notice;

import com.github.f4b6a3.ulid.UlidCreator;
import java.time.Clock;
import org.openpasture.api.people.InvitationView;
import org.openpasture.store.notice.Notice;
import org.openpasture.store.notice.NoticeStore;
import org.openpasture.store.registry.RegistryDatabase;
import org.springframework.stereotype.Component;

/** Sends invitations by mail. */
@Component
public class Invitations {
    private final RegistryDatabase database;
    private final NoticeStore notices;
    private final NoticeSender sender;
    private final Clock clock;

    Invitations(RegistryDatabase database, NoticeStore notices, NoticeSender sender, Clock clock) {
        this.database = database;
        this.notices = notices;
        this.sender = sender;
        this.clock = clock;
    }

    public void send(InvitationView invitation, String inviter) {
        String body = inviter + " invites you to " + invitation.targetName() + " (right: "
                + invitation.right().id() + ").\n\n"
                + "Open this link to choose your password:\n" + invitation.link() + "\n\n"
                + "The link works once, until "
                + invitation.expiresAt().toString().substring(0, 10) + ".\n";
        database.write(dsl -> {
            notices.add(
                    dsl,
                    new Notice(
                            UlidCreator.getMonotonicUlid().toLowerCase(),
                            null,
                            invitation.email(),
                            "Invitation to " + invitation.targetName(),
                            body,
                            Notice.State.WAITING,
                            0,
                            null,
                            clock.instant(),
                            null));
            return true;
        });
        sender.wake();
    }
}
