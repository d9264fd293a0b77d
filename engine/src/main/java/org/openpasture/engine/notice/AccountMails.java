package org.openpasture.engine.notice;

import org.openpasture.api.people.InvitationView;
import org.openpasture.core.people.Person;
import org.openpasture.engine.config.EngineSettings;
import org.springframework.stereotype.Component;

/** Mails about accounts: invitations and forgotten passwords. */
@Component
public class AccountMails {
    private final Outbox outbox;
    private final EngineSettings settings;

    AccountMails(Outbox outbox, EngineSettings settings) {
        this.outbox = outbox;
        this.settings = settings;
    }

    /** Sends an invitation with its link. */
    public void invite(InvitationView invitation, String inviter) {
        outbox.mail(
                invitation.email(),
                "Invitation to " + invitation.targetName(),
                inviter + " invites you to " + invitation.targetName() + " (permission: "
                        + invitation.right().id() + ").\n\n"
                        + "Open this link to choose your password:\n" + invitation.link() + "\n\n"
                        + "The link works once, until "
                        + invitation.expiresAt().toString().substring(0, 10) + ".\n");
    }

    /**
     * Sends the code for another password. Its link begins with the configured address only: one made from a request
     * would lead wherever who asked likes.
     */
    public void resetPassword(Person person, String token, int minutes) {
        String address = settings.addressOrEmpty();
        String way = address.isEmpty()
                ? "Open the console, choose 'Forgot password', then 'I have a code', and enter this code:\n" + token
                : "Open this link to choose a new password:\n" + address + "/reset#" + token;
        outbox.mail(
                person.email(),
                "New password for " + person.name(),
                "Somebody asked for a new password for your account '" + person.name() + "'.\n\n" + way + "\n\n"
                        + "It works once, for " + minutes + " minutes. If you did not ask for it, ignore this mail: "
                        + "your password stays as it is.\n");
    }
}
