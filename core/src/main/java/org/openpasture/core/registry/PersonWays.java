package org.openpasture.core.registry;

import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.notice.NotifiedBrowser;
import org.openpasture.core.notice.Ways;
import org.openpasture.core.people.Person;

/** How people want to be notified, by what is registered. */
public final class PersonWays {
    private PersonWays() {}

    /** The ways of a person; the usual ones where they have chosen none. */
    public static Ways of(Registry registry, Person person) {
        return registry.find(Ways.class, person.id()).orElseGet(() -> Ways.usual(person.id()));
    }

    /** The browsers in which a person is notified. */
    public static List<NotifiedBrowser> browsersOf(Registry registry, String personId) {
        return registry.all(NotifiedBrowser.class).stream()
                .filter(one -> one.personId().equals(personId))
                .toList();
    }

    /** By which addresses a person is notified of something; see {@link Ways#of}. */
    public static List<Ways.Told> told(Registry registry, Person person, Severity severity, Instant at, ZoneId zone) {
        return told(registry, person, of(registry, person), severity, at, zone);
    }

    /** The same by ways that are not those which are kept. */
    public static List<Ways.Told> told(
            Registry registry, Person person, Ways ways, Severity severity, Instant at, ZoneId zone) {
        List<String> browsers = browsersOf(registry, person.id()).stream()
                .map(NotifiedBrowser::id)
                .toList();
        return ways.of(person, browsers, severity, at, zone);
    }

    /** Where mails to a person go; empty if they have no address. */
    public static Optional<String> mailOf(Registry registry, Person person) {
        return Optional.of(of(registry, person).mailOf(person)).filter(address -> !address.isBlank());
    }
}
