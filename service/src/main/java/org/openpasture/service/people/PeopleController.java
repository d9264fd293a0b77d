package org.openpasture.service.people;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.people.AcceptRequest;
import org.openpasture.api.people.InvitationRequest;
import org.openpasture.api.people.InvitationView;
import org.openpasture.api.people.PersonView;
import org.openpasture.api.people.ReasonView;
import org.openpasture.api.people.SessionView;
import org.openpasture.core.access.Access;
import org.openpasture.core.access.Reason;
import org.openpasture.core.edit.GrantEdits;
import org.openpasture.core.edit.PersonEdits;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.registry.Change;
import org.openpasture.engine.notice.AccountMails;
import org.openpasture.engine.secret.Tokens;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Editor;
import org.openpasture.service.access.PeopleViews;
import org.openpasture.service.access.Reader;
import org.openpasture.service.access.SessionCookie;
import org.openpasture.service.problem.Problem;
import org.openpasture.service.web.Addresses;
import org.openpasture.store.people.CredentialStore;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** People and invitations. Who manages something may invite others to it. */
@RestController
class PeopleController {
    private static final Duration INVITATION_LASTS = Duration.ofDays(14);
    private final Accounts accounts;
    private final CredentialStore credentials;
    private final RegistryStore registry;
    private final Reader reader;
    private final PeopleViews views;
    private final AccountMails mails;
    private final Addresses addresses;
    private final Editor editor;
    private final Clock clock;

    PeopleController(
            Accounts accounts,
            CredentialStore credentials,
            RegistryStore registry,
            Reader reader,
            PeopleViews views,
            AccountMails mails,
            Addresses addresses,
            Editor editor,
            Clock clock) {
        this.editor = editor;
        this.accounts = accounts;
        this.credentials = credentials;
        this.registry = registry;
        this.reader = reader;
        this.views = views;
        this.mails = mails;
        this.addresses = addresses;
        this.clock = clock;
    }

    /** Everybody, with the grants that the reader may manage; others see only themselves. */
    @GetMapping("/api/v1/people")
    List<PersonView> people() {
        Access access = reader.access();
        return access.registry().all(Person.class).stream()
                .filter(access::maySee)
                .map(person -> views.person(access.registry(), person))
                .map(view -> access.mayManageInstance()
                                || view.id().equals(access.person().id())
                        ? view
                        : new PersonView(
                                view.id(),
                                view.name(),
                                view.email(),
                                view.owner(),
                                view.grants().stream()
                                        .filter(grant -> access.mayManage(grant.targetId()))
                                        .toList()))
                .toList();
    }

    /** Removes somebody's account: what they made stays, their rights, sign-ins and links end. */
    @DeleteMapping("/api/v1/people/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String id) {
        Optional<Person> leaves = reader.now().find(Person.class, id);
        editor.edit(access -> PersonEdits.remove(access, id));
        leaves.ifPresent(accounts::forget);
    }

    /** Everybody who has access to a place or a part of it, and why. For who manages it. */
    @GetMapping("/api/v1/places/{id}/people")
    List<ReasonView> whoHasAccess(@PathVariable String id) {
        reader.place(id);
        reader.require(Right.MANAGE, id, "see who has access here");
        return Reason.onPlace(reader.now(), id).stream()
                .map(reason -> new ReasonView(
                        reason.person().id(),
                        reason.person().name(),
                        reason.right(),
                        reason.why(),
                        reason.targetId(),
                        reason.targetName(),
                        reason.group()))
                .toList();
    }

    /** Switches the second factor of a person off, who has lost the app and the recovery codes. For owners. */
    @DeleteMapping("/api/v1/people/{id}/second-factor")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void removeSecondFactor(@PathVariable String id) {
        reader.requireOwner("switch off the second factor of others");
        Person person = reader.now().find(Person.class, id).orElseThrow(() -> Problem.notFound("person"));
        accounts.removeSecondFactorOf(person, reader.person().name());
    }

    @GetMapping("/api/v1/invitations")
    List<InvitationView> invitations() {
        Access access = reader.access();
        return credentials.invitations().stream()
                .filter(invitation -> access.mayManage(invitation.targetId()))
                .map(invitation -> view(invitation, null))
                .toList();
    }

    /** Invites somebody; the link is in the answer and nowhere else. */
    @PostMapping("/api/v1/invitations")
    @ResponseStatus(HttpStatus.CREATED)
    InvitationView invite(@RequestBody InvitationRequest request, HttpServletRequest http) {
        Access access = reader.access();
        editor.require(now -> GrantEdits.managing(now, request.targetId(), "invite people here"));
        String token = Tokens.fresh();
        String email = Optional.ofNullable(request.email()).map(String::strip).orElse("");
        CredentialStore.Invitation invitation = new CredentialStore.Invitation(
                Accounts.newId(),
                Tokens.hash(token),
                request.name(),
                email,
                request.right(),
                request.targetId(),
                access.person().name(),
                clock.instant().plus(INVITATION_LASTS));
        credentials.saveInvitation(invitation);
        InvitationView view = view(invitation, addresses.of(http) + "/welcome#" + token);
        if (!email.isEmpty()) {
            mails.invite(view, access.person().name());
        }
        return view;
    }

    private InvitationView view(CredentialStore.Invitation invitation, @Nullable String link) {
        return new InvitationView(
                invitation.id(),
                invitation.name(),
                invitation.email(),
                invitation.right(),
                invitation.targetId(),
                views.targetName(registry.now(), invitation.targetId()),
                invitation.expiresAt(),
                link);
    }

    @DeleteMapping("/api/v1/invitations/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void withdraw(@PathVariable String id) {
        CredentialStore.Invitation invitation = credentials.invitations().stream()
                .filter(kept -> kept.id().equals(id))
                .findFirst()
                .orElseThrow(() -> Problem.notFound("invitation"));
        if (!reader.access().mayManage(invitation.targetId())) {
            throw Problem.forbidden("withdraw this invitation");
        }
        credentials.forgetInvitation(id);
    }

    /** Takes an invitation up: makes the account and signs in. */
    @PostMapping("/api/v1/invitations/taken-up")
    ResponseEntity<SessionView> accept(@RequestBody AcceptRequest request, HttpServletRequest http) {
        CredentialStore.Invitation invitation = credentials
                .takeInvitation(Tokens.hash(request.token()), clock.instant())
                .orElseThrow(() ->
                        Problem.gone("This invitation was withdrawn, taken up or has run out.", "Ask for a new one."));
        Person person = join(request, invitation);
        return SessionCookie.answer(accounts.begin(person, "console", ""), accounts.lasting(), http)
                .body(new SessionView(views.person(registry.now(), person), null));
    }

    private Person join(AcceptRequest request, CredentialStore.Invitation invitation) {
        try {
            return accounts.add(
                    request.name(),
                    invitation.email(),
                    request.password(),
                    false,
                    List.of(made -> new Change.Put(
                            new Grant(Accounts.newId(), made.id(), invitation.right(), invitation.targetId()))));
        } catch (RuntimeException refused) {
            // Their name may be taken: they choose another, with the same link.
            credentials.saveInvitation(invitation);
            throw refused;
        }
    }
}
