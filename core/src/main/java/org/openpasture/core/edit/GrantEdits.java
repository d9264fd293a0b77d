package org.openpasture.core.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.openpasture.core.access.Access;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Group;
import org.openpasture.core.people.Person;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;

/** Rights that people and groups are given and lose. Who manages something says who else may do what with it. */
public final class GrantEdits {
    private GrantEdits() {}

    /**
     * Gives a person or a group a right; one that it had on the same goes.
     *
     * @param access what is registered, and what the person who wishes may do
     */
    public static Edited give(Access access, Grant grant) {
        return Edited.unless(
                managing(access, grant.targetId(), "give rights here").or(() -> holder(access, grant)), () -> {
                    List<Change> steps = new ArrayList<>();
                    access.registry().grantsHeldBy(grant.holderId()).stream()
                            .filter(one -> one.targetId().equals(grant.targetId()))
                            .forEach(one -> steps.add(new Change.Remove(Kind.GRANT, one.id())));
                    steps.add(new Change.Put(grant));
                    return new Changes(steps);
                });
    }

    /** Takes a right away. */
    public static Edited revoke(Access access, String id) {
        Optional<Grant> found = access.registry().find(Grant.class, id);
        if (found.isEmpty()) {
            return Refused.unknown("grant");
        }
        return access.mayManage(found.get().targetId())
                ? new Changes(List.of(new Change.Remove(Kind.GRANT, id)))
                : Refused.notAllowed("take this right away");
    }

    /** Refuses who does not manage a site, area, asset, device or dashboard. */
    public static Optional<Refused> managing(Access access, String targetId, String what) {
        if (access.registry().place(targetId).isEmpty()
                && access.registry().find(Device.class, targetId).isEmpty()
                && access.registry().find(Dashboard.class, targetId).isEmpty()) {
            return Optional.of(Refused.unknown("site, area, asset, device or dashboard"));
        }
        return access.mayManage(targetId) ? Optional.empty() : Optional.of(Refused.notAllowed(what));
    }

    private static Optional<Refused> holder(Access access, Grant grant) {
        return access.registry().find(Person.class, grant.holderId()).isPresent()
                        || access.registry().find(Group.class, grant.holderId()).isPresent()
                ? Optional.empty()
                : Optional.of(Refused.unknown("person or group"));
    }
}
