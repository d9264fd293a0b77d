package org.openpasture.core.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.openpasture.core.access.Access;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.dashboard.ShareLink;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.notice.Ways;
import org.openpasture.core.people.DisplayUnits;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Group;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.StarredPages;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.PersonWays;
import org.openpasture.core.registry.Registry;

/** What becomes of a person who leaves: what they made stays, what they may and what they handed out does not. */
public final class PersonEdits {
    private PersonEdits() {}

    /**
     * Removes somebody's account.
     *
     * @param access what is registered, and what the person who wishes may do
     */
    public static Edited remove(Access access, String id) {
        Registry now = access.registry();
        Optional<Person> found = now.find(Person.class, id);
        if (!access.mayManageInstance()) {
            return found.filter(person -> person.id().equals(access.person().id()))
                            .isPresent()
                    ? Refused.notAllowed("remove your own account")
                    : Refused.unknown("person");
        }
        if (found.isEmpty()) {
            return Refused.unknown("person");
        }
        Person leaves = found.get();
        boolean last = leaves.owner()
                && now.all(Person.class).stream().filter(Person::owner).count() == 1;
        return last
                ? Refused.clash(
                        "'" + leaves.name() + "' is the only owner of this instance.",
                        "Give the instance another owner first.")
                : new Changes(steps(now, leaves, access.person()));
    }

    private static List<Change> steps(Registry now, Person leaves, Person heir) {
        List<Change> steps = new ArrayList<>();
        for (Grant grant : now.grantsHeldBy(leaves.id())) {
            steps.add(new Change.Remove(Kind.GRANT, grant.id()));
        }
        for (Group group : now.groupsOf(leaves.id())) {
            steps.add(new Change.Put(group.without(leaves.id())));
        }
        now.all(ShareLink.class).stream()
                .filter(link -> link.createdBy().equals(leaves.id()))
                .forEach(link -> steps.add(new Change.Remove(Kind.SHARE_LINK, link.id())));
        now.all(Dashboard.class).stream()
                .filter(dashboard -> dashboard.ownerId().equals(leaves.id()))
                .forEach(dashboard -> steps.add(new Change.Put(dashboard.of(heir.id()))));
        now.find(Ways.class, leaves.id()).ifPresent(ways -> steps.add(new Change.Remove(Kind.NOTICE_WAYS, ways.id())));
        now.find(DisplayUnits.class, leaves.id())
                .ifPresent(units -> steps.add(new Change.Remove(Kind.DISPLAY_UNITS, units.id())));
        now.find(StarredPages.class, leaves.id())
                .ifPresent(pages -> steps.add(new Change.Remove(Kind.STARRED_PAGES, pages.id())));
        PersonWays.browsersOf(now, leaves.id())
                .forEach(browser -> steps.add(new Change.Remove(Kind.NOTIFIED_BROWSER, browser.id())));
        steps.add(new Change.Remove(Kind.PERSON, leaves.id()));
        return steps;
    }
}
