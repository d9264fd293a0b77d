package org.openpasture.service.access;

import java.time.Duration;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.people.TokenRequest;
import org.openpasture.api.people.TokenView;
import org.openpasture.core.access.Access;
import org.openpasture.core.access.Scope;
import org.openpasture.core.place.Place;
import org.openpasture.engine.secret.Tokens;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.people.CredentialStore;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Tokens by which programs ask in a person's name, with less than the person may do. */
@RestController
class TokenController {
    private static final int MOST = 100;
    private final Accounts accounts;
    private final Reader reader;

    TokenController(Accounts accounts, Reader reader) {
        this.accounts = accounts;
        this.reader = reader;
    }

    /** The reader's tokens, the newest first. */
    @GetMapping("/api/v1/tokens")
    List<TokenView> list() {
        reader.requireSignIn("see the tokens");
        return accounts.tokens(reader.person()).stream()
                .map(kept -> view(kept, null))
                .toList();
    }

    /** Makes a token; it is in the answer and nowhere else. */
    @PostMapping("/api/v1/tokens")
    @ResponseStatus(HttpStatus.CREATED)
    TokenView make(@RequestBody TokenRequest request) {
        reader.requireSignIn("make a token");
        Access access = reader.access();
        for (String id : Objects.requireNonNull(request.places())) {
            Place place = access.registry().place(id).orElseThrow(() -> Problem.notFound("place"));
            if (!access.maySeeSomethingOf(place)) {
                throw Problem.notFound("place");
            }
        }
        if (accounts.tokens(access.person()).size() >= MOST) {
            throw Problem.conflict("You already have " + MOST + " API tokens.", "Remove unused tokens first.");
        }
        String token = accounts.makeToken(
                access.person(),
                request.name(),
                new Scope(Objects.requireNonNull(request.right()), request.places()),
                Duration.ofDays(Objects.requireNonNull(request.days())));
        String hash = Tokens.hash(token);
        return accounts.tokens(access.person()).stream()
                .filter(kept -> kept.tokenHash().equals(hash))
                .map(kept -> view(kept, token))
                .findFirst()
                .orElseThrow();
    }

    /** Withdraws a token; from then on it opens nothing. */
    @DeleteMapping("/api/v1/tokens/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void withdraw(@PathVariable String id) {
        reader.requireSignIn("withdraw a token");
        accounts.withdraw(
                reader.person(),
                accounts.tokens(reader.person()).stream()
                        .filter(kept -> SessionController.idOf(kept.tokenHash()).equals(id))
                        .findFirst()
                        .orElseThrow(() -> Problem.notFound("token")));
    }

    private static TokenView view(CredentialStore.AccessToken kept, @Nullable String token) {
        return new TokenView(
                SessionController.idOf(kept.tokenHash()),
                kept.note(),
                kept.scope().most(),
                kept.scope().places(),
                kept.createdAt(),
                kept.expiresAt(),
                kept.usedAt().equals(kept.createdAt()) ? null : kept.usedAt(),
                token);
    }
}
