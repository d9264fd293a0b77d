package org.openpasture.core.edit;

import java.util.Optional;
import java.util.stream.Stream;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.people.Group;
import org.openpasture.core.people.Person;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.text.PersonName;

/**
 * Changes of groups. Who puts a person into a group gives every right that the group has on any site, so only who
 * manages the whole instance does; who manages one place gives a group rights there.
 */
public final class GroupEdits {
    private GroupEdits() {}

    /**
     * What becomes of a wish.
     *
     * @param access what is registered, and what the person who wishes may do
     */
    public static Edited edit(Access access, GroupWish wish) {
        return switch (wish) {
            case GroupWish.Put(Group group) ->
                Edited.unless(
                        mayChange(access)
                                .or(() -> members(access.registry(), group))
                                .or(() -> name(access.registry(), group)),
                        () -> Changes.put(group));
            case GroupWish.Remove(String id) ->
                Edited.unless(
                        mayChange(access)
                                .or(() ->
                                        access.registry().find(Group.class, id).isPresent()
                                                ? Optional.empty()
                                                : Optional.of(Refused.unknown("group"))),
                        () -> withItsGrants(access.registry(), id));
        };
    }

    private static Optional<Refused> mayChange(Access access) {
        return access.mayManageInstance()
                ? Optional.empty()
                : Optional.of(new Refused(
                        Edited.Reason.NOT_ALLOWED,
                        "You may not change groups: their rights reach over all sites.",
                        "Ask an owner."));
    }

    private static Optional<Refused> members(Registry now, Group group) {
        return group.memberIds().stream()
                        .allMatch(id -> now.find(Person.class, id).isPresent())
                ? Optional.empty()
                : Optional.of(Refused.invalid(
                        "Somebody in the group has no account here.",
                        "Name people by their ids (GET /api/v1/people)."));
    }

    /** Groups and people are named in one field when rights are given, and written alike in the trail. */
    private static Optional<Refused> name(Registry now, Group group) {
        String key = PersonName.key(group.name());
        return Stream.concat(
                        now.all(Group.class).stream()
                                .filter(other -> !other.id().equals(group.id()))
                                .map(Group::name),
                        now.all(Person.class).stream().map(Person::name))
                .filter(name -> PersonName.key(name).equals(key))
                .findFirst()
                .map(name -> Refused.clash("'" + name + "' is here already.", "Choose another name for the group."));
    }

    private static Changes withItsGrants(Registry now, String id) {
        return new Changes(Stream.concat(
                        now.grantsHeldBy(id).stream().map(grant -> new Change.Remove(Kind.GRANT, grant.id())),
                        Stream.of(new Change.Remove(Kind.GROUP, id)))
                .<Change>map(remove -> remove)
                .toList());
    }
}
