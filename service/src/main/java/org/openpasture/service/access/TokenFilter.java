package org.openpasture.service.access;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.openpasture.core.people.Person;
import org.openpasture.engine.secret.Tokens;
import org.openpasture.store.people.CredentialStore;
import org.openpasture.store.registry.RegistryStore;
import org.openpasture.store.sqlite.StorageFailed;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Recognises who asks, by the console's cookie or a program's bearer token. A request by cookie that changes something
 * must carry a header that another website cannot send along.
 */
final class TokenFilter extends OncePerRequestFilter {
    static final String COOKIE = "pasture_session";
    static final String CONSOLE_HEADER = "X-Pasture-Console";
    private static final Set<String> SAFE = Set.of("GET", "HEAD", "OPTIONS");

    private static final Duration USE_KEPT_EVERY = Duration.ofMinutes(5);

    private final CredentialStore credentials;
    private final RegistryStore registry;
    private final Clock clock;
    private final Duration idle;

    TokenFilter(CredentialStore credentials, RegistryStore registry, Clock clock, Duration idle) {
        this.idle = idle;
        this.credentials = credentials;
        this.registry = registry;
        this.clock = clock;
    }

    @Override
    protected boolean shouldNotFilterAsyncDispatch() {
        return false;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        Optional<String> bearer = Optional.ofNullable(request.getHeader("Authorization"))
                .filter(header -> header.startsWith("Bearer "))
                .map(header -> header.substring(7).strip());
        boolean cookieMayAct = SAFE.contains(request.getMethod()) || request.getHeader(CONSOLE_HEADER) != null;
        bearer.or(() -> cookieMayAct ? cookie(request) : Optional.empty())
                .map(Tokens::hash)
                .flatMap(this::open)
                .ifPresent(this::recognise);
        try {
            chain.doFilter(request, response);
        } finally {
            SecurityContextHolder.clearContext();
        }
    }

    static Optional<String> cookie(HttpServletRequest request) {
        Cookie[] cookies = request.getCookies();
        return cookies == null
                ? Optional.empty()
                : Arrays.stream(cookies)
                        .filter(cookie -> cookie.getName().equals(COOKIE))
                        .map(Cookie::getValue)
                        .findFirst();
    }

    private Optional<CredentialStore.AccessToken> open(String tokenHash) {
        return credentials.token(tokenHash).filter(kept -> kept.isOpenAt(clock.instant(), idle));
    }

    private void recognise(CredentialStore.AccessToken token) {
        registry.now().find(Person.class, token.personId()).ifPresent(person -> {
            UsernamePasswordAuthenticationToken known =
                    UsernamePasswordAuthenticationToken.authenticated(person, token.tokenHash(), List.of());
            known.setDetails(token.scope());
            SecurityContextHolder.getContext().setAuthentication(known);
            keepUse(token);
        });
    }

    private void keepUse(CredentialStore.AccessToken token) {
        Instant now = clock.instant();
        if (token.usedAt().isBefore(now.minus(USE_KEPT_EVERY))) {
            try {
                credentials.used(token.tokenHash(), now);
            } catch (StorageFailed full) {
                // Who may ask does not depend on whether there is room to write that they did.
            }
        }
    }
}
