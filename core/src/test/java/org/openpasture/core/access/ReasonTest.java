package org.openpasture.core.access;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.groups.Tuple.tuple;

import java.time.ZoneOffset;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.openpasture.core.fleet.Device;
import org.openpasture.core.fleet.DeviceIdentity;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Group;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Area;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Registry;

class ReasonTest {
    private static final Registry REGISTRY = Registry.of(List.of(
            new Site("farm", "Farm", ZoneOffset.UTC, null),
            new Site("dairy", "Dairy", ZoneOffset.UTC, null),
            new Area("yard", "Yard", "farm"),
            new Device("d", "Probe", "m", "yard", new DeviceIdentity.OfInlet("i", "1")),
            new Person("o", "owner", "", true),
            new Person("a", "ann", "", false),
            new Person("b", "bea", "", false),
            new Person("c", "cem", "", false),
            new Grant("1", "a", Right.EDIT, "farm"),
            new Grant("2", "a", Right.LOOK, "yard"),
            new Grant("3", "b", Right.OPERATE, "d"),
            new Group("g", "Night shift", List.of("c", "o")),
            new Grant("4", "c", Right.MANAGE, "dairy"),
            new Grant("5", "g", Right.LOOK, "farm")));

    @Test
    void namesEverybodyWithEachReasonAndNobodyElse() {
        assertThat(Reason.onPlace(REGISTRY, "yard"))
                .extracting(one -> one.person().name(), Reason::right, Reason::why, Reason::targetName, Reason::group)
                .containsExactly(
                        tuple("owner", Right.MANAGE, Reason.Why.OWNER, "", null),
                        tuple("ann", Right.EDIT, Reason.Why.GRANT_ABOVE, "Farm", null),
                        tuple("ann", Right.LOOK, Reason.Why.GRANT_HERE, "Yard", null),
                        tuple("bea", Right.OPERATE, Reason.Why.GRANT_ON_PART, "Probe", null),
                        tuple("cem", Right.LOOK, Reason.Why.GRANT_ABOVE, "Farm", "Night shift"));
    }
}
