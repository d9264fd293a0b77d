package org.openpasture.core.registry;

import java.util.List;
import org.openpasture.core.notice.NotifiedBrowser;
import org.openpasture.core.notice.Recipient;
import org.openpasture.core.people.DisplayUnits;
import org.openpasture.core.people.Person;

/** In which units people read values, by what is registered. */
public final class PersonUnits {
    private PersonUnits() {}

    /** The units of a person; as values are kept where they have chosen none. */
    public static DisplayUnits of(Registry registry, String personId) {
        return registry.find(DisplayUnits.class, personId).orElseGet(() -> DisplayUnits.asKept(personId));
    }

    /**
     * The units of whoever reads what goes to an address. As values are kept where the address belongs to nobody who is
     * registered, or to several people who read values in different units.
     */
    public static DisplayUnits ofReader(Registry registry, Recipient address) {
        List<DisplayUnits> readers = registry.all(Person.class).stream()
                .filter(person -> reads(registry, person, address))
                .map(person -> of(registry, person.id()))
                .toList();
        return readers.stream().map(DisplayUnits::chosen).distinct().count() == 1
                ? readers.getFirst()
                : DisplayUnits.asKept("");
    }

    private static boolean reads(Registry registry, Person person, Recipient address) {
        return switch (address) {
            case Recipient.OfPerson(String name) -> person.name().equals(name);
            case Recipient.Mail(String mail) ->
                PersonWays.mailOf(registry, person)
                        .filter(mail::equalsIgnoreCase)
                        .isPresent();
            case Recipient.Text(String number) ->
                PersonWays.of(registry, person).phone().equals(number);
            case Recipient.OfBrowser(String id) ->
                registry.find(NotifiedBrowser.class, id)
                        .filter(browser -> browser.personId().equals(person.id()))
                        .isPresent();
        };
    }
}
