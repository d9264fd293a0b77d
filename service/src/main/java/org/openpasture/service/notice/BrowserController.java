package org.openpasture.service.notice;

import java.time.Clock;
import java.util.Base64;
import java.util.Comparator;
import java.util.Objects;
import org.openpasture.api.people.BrowserRequest;
import org.openpasture.api.people.BrowserView;
import org.openpasture.api.people.BrowsersView;
import org.openpasture.core.edit.BrowserEdits;
import org.openpasture.core.notice.NotifiedBrowser;
import org.openpasture.core.registry.PersonWays;
import org.openpasture.engine.notice.Pusher;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Editor;
import org.openpasture.service.access.Reader;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Browsers in which people are notified. */
@RestController
class BrowserController {
    private final Pusher pusher;
    private final Reader reader;
    private final Editor editor;
    private final Clock clock;

    BrowserController(Pusher pusher, Reader reader, Editor editor, Clock clock) {
        this.pusher = pusher;
        this.reader = reader;
        this.editor = editor;
        this.clock = clock;
    }

    /** The browsers in which the reader is notified. */
    @GetMapping("/api/v1/session/browsers")
    BrowsersView mine() {
        return new BrowsersView(
                Base64.getUrlEncoder().withoutPadding().encodeToString(pusher.publicKey()),
                PersonWays.browsersOf(reader.now(), reader.person().id()).stream()
                        .sorted(Comparator.comparing(NotifiedBrowser::addedAt))
                        .map(BrowserController::view)
                        .toList());
    }

    /** Notifies the reader in a browser from now on. */
    @PostMapping("/api/v1/session/browsers")
    @ResponseStatus(HttpStatus.CREATED)
    BrowserView add(@RequestBody BrowserRequest request) {
        reader.requireSignIn("be notified in this browser");
        NotifiedBrowser browser = new NotifiedBrowser(
                Accounts.newId(),
                reader.person().id(),
                Objects.requireNonNull(request.name()),
                Objects.requireNonNull(request.endpoint()),
                Objects.requireNonNull(request.key()),
                Objects.requireNonNull(request.secret()),
                clock.instant());
        pusher.requireAddress(browser.endpoint());
        editor.edit(access -> BrowserEdits.add(access, browser));
        return view(browser);
    }

    /** Notifies the reader in a browser no longer. */
    @DeleteMapping("/api/v1/session/browsers/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String id) {
        reader.requireSignIn("be notified in a browser no longer");
        editor.edit(access -> BrowserEdits.remove(access, id));
    }

    private static BrowserView view(NotifiedBrowser browser) {
        return new BrowserView(
                browser.id(), browser.name(), String.valueOf(browser.endpoint().getHost()), browser.addedAt());
    }
}
