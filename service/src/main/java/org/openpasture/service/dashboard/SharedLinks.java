package org.openpasture.service.dashboard;

import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import java.time.Clock;
import org.openpasture.core.access.Access;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.dashboard.ShareLink;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.secret.Tokens;
import org.openpasture.service.access.SignInThrottle;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.http.ResponseCookie;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Component;
import org.springframework.web.util.WebUtils;

/** Opens read-only links: whether a token is one that is open, and its passcode was entered. Safe for any thread. */
@Component
class SharedLinks {
    private static final String NEXT_STEP = "Ask who gave it to you for a new one.";
    private final RegistryStore registry;
    private final PasswordEncoder passwords;
    private final SignInThrottle throttle;
    private final Clock clock;
    /** The request that is being answered by the thread that asks. */
    private final HttpServletRequest http;

    SharedLinks(
            RegistryStore registry,
            PasswordEncoder passwords,
            SignInThrottle throttle,
            Clock clock,
            HttpServletRequest http) {
        this.registry = registry;
        this.passwords = passwords;
        this.throttle = throttle;
        this.clock = clock;
        this.http = http;
    }

    /**
     * What a link opens.
     *
     * @param access what its maker may see now
     */
    record Shared(ShareLink link, Access access, Dashboard dashboard) {}

    /**
     * Opens a link, by what the browser was given when its passcode was entered, if it has one.
     *
     * @throws Problem if it has ended, or its passcode was not entered
     */
    Shared open(String token) {
        Registry now = registry.now();
        ShareLink link = find(now, token);
        Cookie pass = WebUtils.getCookie(http, LinkPass.COOKIE);
        if (!LinkPass.fits(link, pass == null ? "" : pass.getValue(), clock.instant())) {
            throw Problem.passcode(
                    "This link has a passcode.", "Enter the passcode that you were given with the link.");
        }
        Person maker = now.find(Person.class, link.createdBy())
                .orElseThrow(() -> Problem.gone("This link has ended.", NEXT_STEP));
        Access access = new Access(now, maker);
        Dashboard dashboard = now.find(Dashboard.class, link.dashboardId())
                .filter(found -> access.may(Right.LOOK, found))
                .orElseThrow(() -> Problem.gone("The dashboard behind this link is gone.", NEXT_STEP));
        return new Shared(link, access, dashboard);
    }

    /**
     * Takes the passcode of a link.
     *
     * @return the cookie that opens the link from now on
     * @throws Problem if it is wrong, or was guessed at too often
     */
    String enter(String token, String passcode) {
        ShareLink link = find(registry.now(), token);
        String hash = link.passcodeHash();
        String name = "link\n" + link.id();
        throttle.attempt(name, http.getRemoteAddr());
        if (hash != null && !passwords.matches(passcode, hash)) {
            throw Problem.passcode("This passcode is wrong.", "Check it, or ask who gave you the link.");
        }
        throttle.succeeded(name, http.getRemoteAddr());
        return ResponseCookie.from(LinkPass.COOKIE, LinkPass.of(link, clock.instant()))
                .httpOnly(true)
                .sameSite("Strict")
                .path("/api/v1/shared/" + token)
                .secure(http.isSecure())
                .maxAge(LinkPass.LASTS)
                .build()
                .toString();
    }

    private ShareLink find(Registry now, String token) {
        String hash = Tokens.hash(token);
        return now.all(ShareLink.class).stream()
                .filter(kept -> kept.tokenHash().equals(hash) && kept.isOpenAt(clock.instant()))
                .findFirst()
                .orElseThrow(() -> Problem.gone("This link was withdrawn or has ended.", NEXT_STEP));
    }
}
