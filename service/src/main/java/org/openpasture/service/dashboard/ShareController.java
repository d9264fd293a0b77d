package org.openpasture.service.dashboard;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.dashboard.ShareRequest;
import org.openpasture.api.dashboard.ShareView;
import org.openpasture.core.access.Access;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.dashboard.ShareLink;
import org.openpasture.core.edit.LinkEdits;
import org.openpasture.core.people.Right;
import org.openpasture.engine.secret.Tokens;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Editor;
import org.openpasture.service.access.Reader;
import org.openpasture.service.web.Addresses;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.http.HttpStatus;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/**
 * Read-only links to dashboards, handed out and withdrawn. A link shows what its maker may see, and ends when it is
 * withdrawn.
 */
@RestController
class ShareController {
    private final RegistryStore registry;
    private final Reader reader;
    private final Editor editor;
    private final LinkOpenings openings;
    private final Addresses addresses;
    private final PasswordEncoder passwords;
    private final Clock clock;

    ShareController(
            RegistryStore registry,
            Reader reader,
            Editor editor,
            LinkOpenings openings,
            Addresses addresses,
            PasswordEncoder passwords,
            Clock clock) {
        this.registry = registry;
        this.reader = reader;
        this.editor = editor;
        this.openings = openings;
        this.addresses = addresses;
        this.passwords = passwords;
        this.clock = clock;
    }

    /** Links that the reader made; an owner sees all. */
    @GetMapping("/api/v1/links")
    List<ShareView> list() {
        Access access = reader.access();
        return access.registry().all(ShareLink.class).stream()
                .filter(link -> access.mayManageInstance()
                        || link.createdBy().equals(access.person().id())
                                && (access.scope().isAll()
                                        || access.registry()
                                                .find(Dashboard.class, link.dashboardId())
                                                .filter(dashboard -> access.may(Right.LOOK, dashboard))
                                                .isPresent()))
                .map(link -> view(link, null))
                .toList();
    }

    private ShareView view(ShareLink link, @Nullable String address) {
        LinkOpenings.Openings opened = openings.of(link.id());
        return new ShareView(
                link.id(),
                link.dashboardId(),
                registry.now()
                        .find(Dashboard.class, link.dashboardId())
                        .map(Dashboard::name)
                        .orElse(""),
                link.note(),
                link.createdAt(),
                link.until(),
                address,
                opened.times(),
                opened.last(),
                link.hasPasscode());
    }

    /** Makes a link; its address is in the answer and nowhere else. */
    @PostMapping("/api/v1/dashboards/{id}/links")
    @ResponseStatus(HttpStatus.CREATED)
    ShareView make(@PathVariable String id, @RequestBody ShareRequest request, HttpServletRequest http) {
        String token = Tokens.fresh();
        Instant now = clock.instant();
        ShareLink link = new ShareLink(
                Accounts.newId(),
                id,
                Tokens.hash(token),
                request.note() == null ? "" : request.note(),
                now,
                now.plus(Duration.ofDays(Objects.requireNonNull(request.days()))),
                reader.person().id(),
                request.passcode() == null ? null : passwords.encode(request.passcode()));
        editor.edit(access -> LinkEdits.make(access, link));
        return view(link, addresses.of(http) + "/shared/" + token);
    }

    /** Withdraws a link; whoever has it sees nothing from now on. */
    @DeleteMapping("/api/v1/links/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void withdraw(@PathVariable String id) {
        reader.requireScope(Right.EDIT, "withdraw a link");
        editor.edit(access -> LinkEdits.withdraw(access, id));
    }
}
