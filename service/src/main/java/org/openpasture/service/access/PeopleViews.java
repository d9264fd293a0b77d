package org.openpasture.service.access;

import org.openpasture.api.people.PersonView;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Group;
import org.openpasture.core.people.Person;
import org.openpasture.core.place.Place;
import org.openpasture.core.registry.Registry;
import org.springframework.stereotype.Component;

/** How people are shown. */
@Component
public class PeopleViews {
    public PersonView person(Registry registry, Person person) {
        return new PersonView(
                person.id(),
                person.name(),
                person.email(),
                person.owner(),
                registry.grantsOf(person.id()).stream()
                        .map(grant -> grant(registry, grant, person.id()))
                        .toList());
    }

    /** A right that a person or a group has. */
    public PersonView.GrantView grant(Registry registry, Grant grant, String ofId) {
        return new PersonView.GrantView(
                grant.id(),
                grant.right(),
                grant.targetId(),
                targetName(registry, grant.targetId()),
                grant.holderId().equals(ofId)
                        ? null
                        : registry.find(Group.class, grant.holderId())
                                .map(Group::name)
                                .orElse(null));
    }

    /** What a grant is on. */
    public String targetName(Registry registry, String id) {
        return registry.place(id)
                .map(Place::name)
                .or(() -> registry.find(Device.class, id).map(Device::name))
                .or(() -> registry.find(Dashboard.class, id).map(Dashboard::name))
                .orElse("something that is gone");
    }
}
