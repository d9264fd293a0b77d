package org.openpasture.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.openpasture.core.access.Access;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Reason;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.fleet.Gateway;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Area;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;

class PlaceEditsTest {
    private static final Person OWNER = new Person("o", "owner", "", true);
    private static final Person EDITOR = new Person("e", "ed", "", false);
    private static final Person LOOKER = new Person("l", "lu", "", false);
    private static final Site CREAMERY = new Site("creamery", "Creamery", ZoneOffset.UTC, null);
    private static final Area HALL = new Area("hall", "Hall", "creamery");
    private static final Area ROOM = new Area("room", "Whey room", "hall");
    private static final Asset PUMP = asset("pump", "room");
    private static final Registry REGISTRY = Registry.of(List.of(
            CREAMERY,
            HALL,
            ROOM,
            PUMP,
            new Site("farm", "Farm", ZoneOffset.UTC, null),
            OWNER,
            EDITOR,
            LOOKER,
            new Grant("g1", "e", Right.EDIT, "creamery"),
            new Grant("g2", "l", Right.LOOK, "creamery")));

    private static Asset asset(String id, String parent, String... limitSets) {
        return new Asset(id, "Whey pump", parent, "pump", List.of(limitSets));
    }

    private static Edited by(Person person, PlaceWish wish) {
        return PlaceEdits.edit(new Access(REGISTRY, person), wish);
    }

    private static void refused(Reason reason, Edited edited) {
        assertThat(edited).isInstanceOfSatisfying(Refused.class, refused -> assertThat(refused.reason())
                .isEqualTo(reason));
    }

    private static Registry after(Registry before, Edited edited) {
        assertThat(edited).isInstanceOf(Changes.class);
        return before.with(((Changes) edited).steps());
    }

    @Test
    void whoMayEditOneAssetChangesItAndMovesItNowhere() {
        Registry now = REGISTRY.with(List.of(
                new Change.Put(new Person("p", "pat", "", false)),
                new Change.Put(new Grant("g3", "p", Right.EDIT, "pump"))));
        Access pat = new Access(now, new Person("p", "pat", "", false));
        Asset renamed = new Asset("pump", "Milk pump", "room", "pump", List.of());
        assertThat(PlaceEdits.edit(pat, new PlaceWish.Change(renamed)))
                .isEqualTo(new Changes(List.of(new Change.Put(renamed))));
        refused(Reason.UNKNOWN, PlaceEdits.edit(pat, new PlaceWish.Change(asset("pump", "hall"))));
    }

    @Test
    void anEditorMakesAndMovesWhatLiesBelowTheSiteAndNothingElsewhere() {
        assertThat(by(EDITOR, new PlaceWish.Make(asset("fan", "hall")))).isInstanceOf(Changes.class);
        assertThat(by(EDITOR, new PlaceWish.Change(asset("pump", "hall")))).isInstanceOf(Changes.class);
        refused(Reason.UNKNOWN, by(EDITOR, new PlaceWish.Make(asset("fan", "farm"))));
        refused(Reason.UNKNOWN, by(EDITOR, new PlaceWish.Change(asset("pump", "farm"))));
        refused(Reason.NOT_ALLOWED, by(EDITOR, new PlaceWish.Change(CREAMERY)));
        refused(Reason.NOT_ALLOWED, by(EDITOR, new PlaceWish.Make(new Site("x", "X", ZoneOffset.UTC, null))));
        refused(Reason.NOT_ALLOWED, by(LOOKER, new PlaceWish.Make(asset("fan", "hall"))));
        refused(Reason.NOT_ALLOWED, by(LOOKER, new PlaceWish.Remove("pump")));
        refused(Reason.UNKNOWN, by(LOOKER, new PlaceWish.Remove("farm")));
    }

    @Test
    void aPlaceStaysOfItsKindWhoeverAsks() {
        List<Place> asAnotherKind = List.of(
                new Area("creamery", "Creamery", "farm"),
                new Area("pump", "Pump", "hall"),
                asset("hall", "creamery"),
                asset("creamery", "farm"),
                new Site("hall", "Hall", ZoneOffset.UTC, null));
        assertThat(asAnotherKind).allSatisfy(place -> refused(Reason.UNKNOWN, by(OWNER, new PlaceWish.Change(place))));
    }

    @Test
    void theTreeStaysATree() {
        refused(Reason.CLASH, by(OWNER, new PlaceWish.Change(new Area("hall", "Hall", "hall"))));
        refused(Reason.CLASH, by(OWNER, new PlaceWish.Change(new Area("hall", "Hall", "room"))));
        refused(Reason.CLASH, by(OWNER, new PlaceWish.Make(new Area("cellar", "Cellar", "pump"))));
        refused(Reason.CLASH, by(OWNER, new PlaceWish.Make(new Area("room", "Another", "creamery"))));
        refused(Reason.UNKNOWN, by(OWNER, new PlaceWish.Make(new Area("cellar", "Cellar", "nowhere"))));
        refused(Reason.UNKNOWN, by(OWNER, new PlaceWish.Make(asset("fan", "hall", "no such limits"))));
    }

    @Test
    void noMoveMakesItSoDeepThatTheSiteIsOutOfReach() {
        List<Entity> entities = new ArrayList<>(List.of(CREAMERY, OWNER));
        for (String chain : List.of("a", "b")) {
            IntStream.range(0, 20)
                    .forEach(i ->
                            entities.add(new Area(chain + i, "Level " + i, i == 0 ? "creamery" : chain + (i - 1))));
        }
        Access deep = new Access(Registry.of(entities), OWNER);
        refused(Reason.CLASH, PlaceEdits.edit(deep, new PlaceWish.Change(new Area("b0", "Level 0", "a19"))));
        assertThat(PlaceEdits.edit(deep, new PlaceWish.Change(new Area("b0", "Level 0", "a9"))))
                .isInstanceOf(Changes.class);
    }

    static Stream<Entity> whatBelongsToAPlace() {
        return Stream.of(
                new Point("p", 1, "Axial", "creamery", Quantity.VIBRATION_VELOCITY, "mm/s", null, null, null, true),
                new Area("a", "Yard", "creamery"),
                asset("b", "creamery"),
                new Gateway("gw", "Roof", Eui64.of("0102030405060708"), "creamery"),
                new Dashboard("d", "Overview", "o", "creamery", 1, List.of()));
    }

    @ParameterizedTest
    @MethodSource("whatBelongsToAPlace")
    void aPlaceInUseIsNotRemovedAndTheAnswerSaysByWhat(Entity entity) {
        Registry used = Registry.of(List.of(CREAMERY, OWNER, entity));
        Edited edited = PlaceEdits.edit(new Access(used, OWNER), new PlaceWish.Remove("creamery"));
        refused(Reason.CLASH, edited);
        assertThat(((Refused) edited).what())
                .isEqualTo("'Creamery' is still in use: 1 " + Kind.of(entity).id() + ".");
    }

    @Test
    void anAssetThatARuleLooksAtIsNotRemoved() {
        Rule rule = new Rule(
                "r",
                "Too high",
                new Target.OfAsset("pump", Quantity.VIBRATION_VELOCITY),
                new Condition.Above(5),
                new Hold.ForTime(0),
                0,
                Severity.WARNING,
                true,
                List.of(),
                "");
        Registry watched = REGISTRY.with(List.of(new Change.Put(rule)));
        refused(Reason.CLASH, PlaceEdits.edit(new Access(watched, OWNER), new PlaceWish.Remove("pump")));
    }

    @Test
    void theRightsOnAPlaceGoWithIt() {
        Registry granted = REGISTRY.with(List.of(new Change.Put(new Grant("g3", "l", Right.EDIT, "farm"))));
        Registry after = after(granted, PlaceEdits.edit(new Access(granted, OWNER), new PlaceWish.Remove("farm")));
        assertThat(after.place("farm")).isEmpty();
        assertThat(after.all(Grant.class)).extracting(Grant::id).containsExactlyInAnyOrder("g1", "g2");
    }
}
