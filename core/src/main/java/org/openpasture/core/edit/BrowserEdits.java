package org.openpasture.core.edit;

import java.util.ArrayList;
import java.util.List;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.notice.NotifiedBrowser;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.PersonWays;
import org.openpasture.core.registry.Registry;

/** Browsers in which people are notified: each person's are their own. */
public final class BrowserEdits {
    private BrowserEdits() {}

    /**
     * Adds a browser of who asks, or changes it. Whoever had signed up with the same browser before is notified there
     * no longer, since somebody else sits before it now.
     */
    public static Edited add(Access access, NotifiedBrowser browser) {
        Registry now = access.registry();
        String mine = access.person().id();
        List<NotifiedBrowser> same = now.all(NotifiedBrowser.class).stream()
                .filter(one ->
                        one.endpoint().equals(browser.endpoint()) && !one.id().equals(browser.id()))
                .toList();
        long others = PersonWays.browsersOf(now, mine).stream()
                .filter(one -> !same.contains(one))
                .count();
        if (others >= NotifiedBrowser.MOST) {
            return Refused.clash(
                    "You are notified in " + NotifiedBrowser.MOST + " browsers already.", "Remove one of them first.");
        }
        List<Change> steps = new ArrayList<>();
        same.forEach(one -> steps.add(new Change.Remove(Kind.NOTIFIED_BROWSER, one.id())));
        steps.add(new Change.Put(browser));
        steps.add(new Change.Put(PersonWays.of(now, access.person()).withBrowsers()));
        return new Changes(steps);
    }

    /** Removes a browser of who asks. */
    public static Edited remove(Access access, String id) {
        return access.registry()
                .find(NotifiedBrowser.class, id)
                .filter(one -> one.personId().equals(access.person().id()))
                .<Edited>map(one -> new Changes(List.of(new Change.Remove(Kind.NOTIFIED_BROWSER, id))))
                .orElseGet(() -> Refused.unknown("browser"));
    }
}
