package org.openpasture.service.access;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import org.openpasture.api.people.SessionView;
import org.openpasture.api.people.SetupRequest;
import org.openpasture.api.people.SignInRequest;
import org.openpasture.core.people.Person;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
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
                accounts.authenticate(request.name(), request.password(), http.getRemoteAddr()),
                request.client(),
                http);
    }

    private ResponseEntity<SessionView> signedIn(
            Person person, @org.jspecify.annotations.Nullable String client, HttpServletRequest http) {
        if (client != null) {
            return ResponseEntity.ok(
                    new SessionView(views.person(reader.now(), person), accounts.begin(person, "client", client)));
        }
        return SessionCookie.answer(accounts.begin(person, "console", ""), Duration.ofDays(30), http)
                .body(new SessionView(views.person(reader.now(), person), null));
    }

    @GetMapping("/api/v1/session")
    SessionView session() {
        return new SessionView(views.person(reader.now(), reader.person()), null);
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
