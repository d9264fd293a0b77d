package org.openpasture.service.access;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.openpasture.api.people.PasswordRequest;
import org.openpasture.api.people.SessionView;
import org.openpasture.api.people.SetupRequest;
import org.openpasture.api.people.SignInRequest;
import org.openpasture.api.people.SignedInView;
import org.openpasture.core.people.Person;
import org.openpasture.service.problem.Problem;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** First visit, sign-in and sign-out. */
@RestController
class SessionController {
    private final Accounts accounts;
    private final Reader reader;
    private final PeopleViews views;

    SessionController(Accounts accounts, Reader reader, PeopleViews views) {
        this.accounts = accounts;
        this.reader = reader;
        this.views = views;
    }

    /** Whether this instance waits for its owner. */
    @GetMapping("/api/v1/setup")
    Map<String, Boolean> setup() {
        return Map.of("needed", accounts.isSetupNeeded());
    }

    @PostMapping("/api/v1/setup")
    ResponseEntity<SessionView> setUp(@RequestBody SetupRequest request, HttpServletRequest http) {
        Person owner = accounts.setUp(
                request.code(),
                request.name(),
                Optional.ofNullable(request.email()).orElse(""),
                request.password(),
                http.getRemoteAddr());
        return signedIn(owner, null, http);
    }

    @PostMapping("/api/v1/setup/recovery")
    ResponseEntity<SessionView> recover(@RequestBody SetupRequest request, HttpServletRequest http) {
        return signedIn(
                accounts.recover(request.code(), request.name(), request.password(), http.getRemoteAddr()), null, http);
    }

    @PostMapping("/api/v1/session")
    ResponseEntity<SessionView> signIn(@RequestBody SignInRequest request, HttpServletRequest http) {
        return signedIn(
                accounts.authenticate(request.name(), request.password(), request.code(), http.getRemoteAddr()),
                request.client(),
                http);
    }

    private ResponseEntity<SessionView> signedIn(
            Person person, @org.jspecify.annotations.Nullable String client, HttpServletRequest http) {
        if (client != null) {
            return ResponseEntity.ok(
                    new SessionView(views.person(reader.now(), person), accounts.begin(person, "client", client)));
        }
        return SessionCookie.answer(accounts.begin(person, "console", ""), accounts.lasting(), http)
                .body(new SessionView(views.person(reader.now(), person), null));
    }

    @GetMapping("/api/v1/session")
    SessionView session() {
        return new SessionView(views.person(reader.now(), reader.person()), null);
    }

    /** Gives the reader another password; their other sign-ins end. */
    @PutMapping("/api/v1/session/password")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void changePassword(@RequestBody PasswordRequest request, HttpServletRequest http) {
        reader.requireSignIn("change the password");
        accounts.changePassword(
                reader.person(), request.current(), request.password(), reader.tokenHash(), http.getRemoteAddr());
    }

    /** Where the reader is signed in. */
    @GetMapping("/api/v1/sessions")
    List<SignedInView> sessions() {
        reader.requireSignIn("see the sign-ins");
        String mine = reader.tokenHash();
        return accounts.sessions(reader.person()).stream()
                .map(kept -> new SignedInView(
                        idOf(kept.tokenHash()),
                        kept.purpose(),
                        kept.note(),
                        kept.createdAt(),
                        kept.expiresAt(),
                        kept.tokenHash().equals(mine)))
                .toList();
    }

    /** The start of the hash: enough to name it, and of no use to sign in. */
    static String idOf(String tokenHash) {
        return tokenHash.substring(0, 16);
    }

    /** Ends all sign-ins of the reader but this one. */
    @DeleteMapping("/api/v1/sessions")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void endOthers() {
        String mine = reader.tokenHash();
        reader.requireSignIn("end sign-ins");
        accounts.endSessions(
                reader.person(), kept -> !kept.isProgram() && !kept.tokenHash().equals(mine));
    }

    /** Ends one sign-in of the reader. */
    @DeleteMapping("/api/v1/sessions/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void end(@PathVariable String id) {
        reader.requireSignIn("end sign-ins");
        Person person = reader.person();
        if (accounts.sessions(person).stream()
                .noneMatch(kept -> idOf(kept.tokenHash()).equals(id))) {
            throw Problem.notFound("sign-in");
        }
        accounts.endSessions(
                person, kept -> !kept.isProgram() && idOf(kept.tokenHash()).equals(id));
    }

    @DeleteMapping("/api/v1/session")
    ResponseEntity<Void> signOut(HttpServletRequest http) {
        Optional.ofNullable(http.getHeader("Authorization"))
                .map(header -> header.replaceFirst("^Bearer ", ""))
                .or(() -> TokenFilter.cookie(http))
                .ifPresent(accounts::end);
        return SessionCookie.answer("", Duration.ZERO, http).build();
    }
}
