package org.openpasture.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.ZoneOffset;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Group;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Area;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Registry;

class GroupEditsTest {
    private static final Person OWNER = new Person("o", "owner", "", true);
    private static final Person MANAGER = new Person("m", "mia", "", false);
    private static final Person ANN = new Person("a", "ann", "", false);
    private static final Group SHIFT = new Group("g", "Night shift", List.of("a"));
    private static final Registry REGISTRY = Registry.of(List.of(
            new Site("farm", "Farm", ZoneOffset.UTC, null),
            new Area("yard", "Yard", "farm"),
            new Site("dairy", "Dairy", ZoneOffset.UTC, null),
            OWNER,
            MANAGER,
            ANN,
            SHIFT,
            new Grant("1", "m", Right.MANAGE, "farm"),
            new Grant("2", "g", Right.OPERATE, "farm")));

    @Test
    void whoIsInAGroupHasItsRightsAndLosesThemOnLeaving() {
        assertThat(new Access(REGISTRY, ANN).may(Right.OPERATE, "yard")).isTrue();
        assertThat(new Access(REGISTRY, ANN).may(Right.EDIT, "yard")).isFalse();
        Registry left = after(OWNER, new GroupWish.Put(new Group("g", "Night shift", List.of("m"))));
        assertThat(new Access(left, ANN).may(Right.LOOK, "yard")).isFalse();
        assertThat(new Access(left, ANN).maySeeSomethingOf(left.place("farm").orElseThrow()))
                .isFalse();
    }

    @Test
    void aGroupThatIsRemovedTakesItsRightsWithIt() {
        Registry gone = after(OWNER, new GroupWish.Remove("g"));
        assertThat(gone.all(Grant.class)).extracting(Grant::id).containsExactly("1");
        assertThat(new Access(gone, ANN).may(Right.LOOK, "farm")).isFalse();
    }

    @Test
    void aPersonWhoLeavesIsInNoGroupAnyMore() {
        Registry gone = REGISTRY.with(((Changes) PersonEdits.remove(new Access(REGISTRY, OWNER), "a")).steps());
        assertThat(gone.find(Group.class, "g").orElseThrow().memberIds()).isEmpty();
    }

    /** Else who manages one site could give themselves what a group may do on another. */
    @Test
    void onlyOwnersSayWhoIsInAGroup() {
        Group withHer = new Group("g", "Night shift", List.of("a", "m"));
        assertThat(refused(MANAGER, new GroupWish.Put(withHer))).isEqualTo(Edited.Reason.NOT_ALLOWED);
        assertThat(refused(MANAGER, new GroupWish.Remove("g"))).isEqualTo(Edited.Reason.NOT_ALLOWED);
        assertThat(refused(ANN, new GroupWish.Put(new Group("x", "Mine", List.of("a")))))
                .isEqualTo(Edited.Reason.NOT_ALLOWED);
    }

    @Test
    void whoManagesAPlaceGivesAGroupRightsThereAndNowhereElse() {
        Access manager = new Access(REGISTRY, MANAGER);
        Grant more = new Grant("3", "g", Right.EDIT, "farm");
        Registry given = REGISTRY.with(((Changes) GrantEdits.give(manager, more)).steps());
        assertThat(given.grantsHeldBy("g")).containsExactly(more);
        assertThat(new Access(given, ANN).may(Right.EDIT, "yard")).isTrue();
        assertThat(reason(GrantEdits.give(manager, new Grant("4", "g", Right.LOOK, "dairy"))))
                .isEqualTo(Edited.Reason.NOT_ALLOWED);
        assertThat(reason(GrantEdits.give(manager, new Grant("4", "nobody", Right.LOOK, "farm"))))
                .isEqualTo(Edited.Reason.UNKNOWN);
        assertThat(reason(GrantEdits.give(manager, new Grant("4", "g", Right.LOOK, "nowhere"))))
                .isEqualTo(Edited.Reason.UNKNOWN);
        assertThat(reason(GrantEdits.revoke(new Access(REGISTRY, ANN), "2"))).isEqualTo(Edited.Reason.NOT_ALLOWED);
    }

    @Test
    void aNameStandsForOneGroupOrOnePerson() {
        assertThat(refused(OWNER, new GroupWish.Put(new Group("x", "NIGHT  SHIFT", List.of()))))
                .isEqualTo(Edited.Reason.CLASH);
        assertThat(refused(OWNER, new GroupWish.Put(new Group("x", "Ann", List.of()))))
                .isEqualTo(Edited.Reason.CLASH);
        assertThat(refused(OWNER, new GroupWish.Put(new Group("x", "Day shift", List.of("nobody")))))
                .isEqualTo(Edited.Reason.INVALID);
    }

    private static Registry after(Person who, GroupWish wish) {
        return REGISTRY.with(((Changes) GroupEdits.edit(new Access(REGISTRY, who), wish)).steps());
    }

    private static Edited.Reason refused(Person who, GroupWish wish) {
        return reason(GroupEdits.edit(new Access(REGISTRY, who), wish));
    }

    private static Edited.Reason reason(Edited edited) {
        return ((Refused) edited).reason();
    }
}
