package org.openpasture.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Reason;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Area;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.Registry;

class GatewayEditsTest {
    private static final Eui64 ROOF_EUI = Eui64.of("0102030405060708");
    private static final Eui64 SILO_EUI = Eui64.of("0102030405060709");
    private static final Person EDITOR = new Person("e", "ed", "", false);
    private static final Person OPERATOR = new Person("p", "op", "", false);
    private static final Registry REGISTRY = Registry.of(List.of(
            new Site("creamery", "Creamery", ZoneOffset.UTC, null),
            new Area("hall", "Hall", "creamery"),
            new Site("farm", "Farm", ZoneOffset.UTC, null),
            new Gateway("roof", "Roof", ROOF_EUI, "creamery"),
            new Gateway("silo", "Silo", SILO_EUI, "farm"),
            EDITOR,
            OPERATOR,
            new Grant("g1", "e", Right.EDIT, "creamery"),
            new Grant("g2", "p", Right.OPERATE, "creamery")));

    private static Edited by(Person person, GatewayWish wish) {
        return GatewayEdits.edit(new Access(REGISTRY, person), wish);
    }

    private static void refused(Reason reason, Edited edited) {
        assertThat(edited).isInstanceOfSatisfying(Refused.class, refused -> assertThat(refused.reason())
                .isEqualTo(reason));
    }

    @Test
    void anEditorRegistersRenamesAndRemovesTheGatewaysOfTheSite() {
        Gateway yard = new Gateway("yard", "Yard", Eui64.of("010203040506070A"), "creamery");
        Gateway renamed = new Gateway("roof", "Roof, west", ROOF_EUI, "creamery");
        assertThat(by(EDITOR, new GatewayWish.Make(yard))).isEqualTo(new Changes(List.of(new Change.Put(yard))));
        assertThat(by(EDITOR, new GatewayWish.Change(renamed)))
                .isEqualTo(new Changes(List.of(new Change.Put(renamed))));
        assertThat(by(EDITOR, new GatewayWish.Remove("roof")))
                .isEqualTo(new Changes(List.of(new Change.Remove(Kind.GATEWAY, "roof"))));
        refused(Reason.NOT_ALLOWED, by(OPERATOR, new GatewayWish.Remove("roof")));
        refused(Reason.NOT_ALLOWED, by(OPERATOR, new GatewayWish.Make(yard)));
    }

    @Test
    void theFramesOfAGatewayAreCountedAtAPointThatIsMadeOnceAndStays() {
        GatewayWish.Counting counted = new GatewayWish.Counting(Optional.of(true), "count", 41);
        Gateway roof = new Gateway("roof", "Roof", ROOF_EUI, "creamery");
        Changes made = (Changes) by(EDITOR, new GatewayWish.Change(roof, counted));
        Registry after = REGISTRY.with(made.steps());
        assertThat(after.find(Point.class, "count")).hasValueSatisfying(point -> {
            assertThat(point.number()).as("after the highest that was kept").isEqualTo(42);
            assertThat(point.placeId()).isEqualTo("creamery");
        });
        assertThat(after.find(Gateway.class, "roof").orElseThrow().pointId()).isEqualTo("count");

        Access access = new Access(after, EDITOR);
        Changes renamed = (Changes)
                GatewayEdits.edit(access, new GatewayWish.Change(new Gateway("roof", "West", ROOF_EUI, "creamery")));
        assertThat(after.with(renamed.steps()).find(Gateway.class, "roof").orElseThrow())
                .isEqualTo(new Gateway("roof", "West", ROOF_EUI, "creamery", "count"));
        assertThat(GatewayEdits.edit(access, new GatewayWish.Change(roof, counted)))
                .as("no second point")
                .isEqualTo(new Changes(
                        List.of(new Change.Put(new Gateway("roof", "Roof", ROOF_EUI, "creamery", "count")))));
        refused(Reason.CLASH, PointEdits.edit(access, new PointWish.Remove("count", false)));
        GatewayWish.Counting not = new GatewayWish.Counting(Optional.of(false), "other", 41);
        assertThat(GatewayEdits.edit(access, new GatewayWish.Change(roof, not)))
                .isEqualTo(new Changes(List.of(new Change.Put(roof))));
    }

    @Test
    void ofAnotherSiteNothingIsKnownMovedInOrMovedOut() {
        refused(Reason.UNKNOWN, by(EDITOR, new GatewayWish.Remove("silo")));
        refused(Reason.UNKNOWN, by(EDITOR, new GatewayWish.Change(new Gateway("silo", "Mine", SILO_EUI, "creamery"))));
        refused(Reason.UNKNOWN, by(EDITOR, new GatewayWish.Change(new Gateway("roof", "Roof", ROOF_EUI, "farm"))));
    }

    @Test
    void anEuiIsOneGatewaysAndAGatewayBelongsToASite() {
        refused(Reason.CLASH, by(EDITOR, new GatewayWish.Make(new Gateway("new", "New", ROOF_EUI, "creamery"))));
        refused(Reason.CLASH, by(EDITOR, new GatewayWish.Change(new Gateway("roof", "Roof", SILO_EUI, "creamery"))));
        refused(
                Reason.UNKNOWN,
                by(EDITOR, new GatewayWish.Make(new Gateway("new", "New", Eui64.of("0102030405060711"), "hall"))));
    }
}
