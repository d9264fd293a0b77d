package org.openpasture.core.registry;

import java.util.Optional;
import org.openpasture.core.notice.Ways;
import org.openpasture.core.people.Person;

/** How people want to be notified, by what is registered. */
public final class PersonWays {
    private PersonWays() {}

    /** The ways of a person; the usual ones where they have chosen none. */
    public static Ways of(Registry registry, Person person) {
        return registry.find(Ways.class, person.id()).orElseGet(() -> Ways.usual(person.id()));
    }

    /** Where mails to a person go; empty if they have no address. */
    public static Optional<String> mailOf(Registry registry, Person person) {
        return Optional.of(of(registry, person).mailOf(person)).filter(address -> !address.isBlank());
    }
}
