package org.openpasture.core.packing;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import org.openpasture.core.access.Access;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.dashboard.Frame;
import org.openpasture.core.dashboard.Panel;
import org.openpasture.core.edit.Edited;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.limit.Source;
import org.openpasture.core.limit.Zone;
import org.openpasture.core.pack.ImportedPack;
import org.openpasture.core.pack.Pack;
import org.openpasture.core.pack.PackFile;
import org.openpasture.core.packing.PackPlan.Fate;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Asset;
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

class PackImportTest {
    private static final Person OWNER = new Person("o", "owner", "", true);
    private static final Person EDITOR = new Person("e", "ed", "", false);
    private static final LimitSet COLD = new LimitSet(
            "cold",
            "Cold rooms",
            new Source("house rule", "", ""),
            Quantity.TEMPERATURE,
            "°C",
            "",
            false,
            List.of(
                    new Zone("kept", Severity.NORMAL, null, 6.0, ""),
                    new Zone("warm", Severity.WARNING, 6.0, null, "")),
            "creamery");
    private static final Rule WARM = rule("warm", new Target.OfPoint("air"), new Condition.Above(46.4));
    private static final Rule ZONE =
            rule("zone", new Target.OfAsset("store", Quantity.TEMPERATURE), new Condition.InZone(Severity.WARNING));
    /** Where the pack is made: a cold store that is measured in °F. */
    private static final Registry THERE = Registry.of(List.of(
            new Site("creamery", "Creamery", ZoneOffset.UTC, null),
            COLD,
            new Asset("store", "Cold store 1", "creamery", "cold room", List.of("cold")),
            new Point("air", 1, "Air", "store", Quantity.TEMPERATURE, "°F", null, null, null, true),
            WARM,
            ZONE,
            new Dashboard("board", "Cold chain", "o", "creamery", 4, List.of(panel("air"))),
            OWNER));
    /** Where it goes: two cold rooms, measured in °C. */
    private static final Registry HERE = Registry.of(List.of(
            new Site("dairy", "Dairy", ZoneOffset.UTC, null),
            new Site("mill", "Mill", ZoneOffset.UTC, null),
            new Asset("room", "Butter room", "dairy", "Cold room", List.of()),
            new Asset("shed", "Shed", "mill", "barn", List.of()),
            new Point("t", 7, "Temperature", "room", Quantity.TEMPERATURE, "°C", null, null, null, true),
            new Point("h", 8, "Humidity", "room", Quantity.HUMIDITY, "%", null, null, null, true),
            OWNER,
            EDITOR,
            new Grant("g", "e", Right.EDIT, "dairy")));

    private final AtomicInteger ids = new AtomicInteger();

    private static Rule rule(String id, Target target, Condition condition) {
        return new Rule(
                id,
                "Too " + id,
                target,
                condition,
                new Hold.ForTime(600),
                1.8,
                Severity.WARNING,
                true,
                List.of("ann@there.example"),
                "Close the door.");
    }

    private static Panel panel(String point) {
        return new Panel.Line(new Frame("p1", "Air", List.of(point), null, null, null, 0, 0, 12, 4), null);
    }

    private static Pack pack() {
        return pack(THERE, Set.of("warm", "zone"), Set.of("board"));
    }

    private static Pack pack(Registry from, Set<String> rules, Set<String> boards) {
        PackChoice choice = new PackChoice("Cold", "", rules, boards, Set.of(), Set.of());
        Access owner = new Access(from, OWNER);
        assertThat(PackMaker.refusal(owner, choice)).isEmpty();
        // by its text, as it travels
        return PackFile.read(PackFile.write(PackMaker.pack(owner, choice)));
    }

    private PackPlan plan(Registry now, Person person, Pack pack, PackWish wish) {
        return PackImport.plan(new Access(now, person), pack, wish, () -> "n" + ids.incrementAndGet());
    }

    private static Registry after(Registry now, PackPlan plan) {
        assertThat(plan.edited()).isInstanceOf(Edited.Changes.class);
        return now.with(plan.steps());
    }

    private static Map<String, Fate> fates(PackPlan plan) {
        return plan.parts().stream()
                .collect(java.util.stream.Collectors.toMap(PackPlan.Part::key, PackPlan.Part::fate));
    }

    private static <T> T only(java.util.Collection<T> all) {
        assertThat(all).hasSize(1);
        return all.iterator().next();
    }

    @Test
    void aPanelOfACameraStaysWhereItsCameraIs() {
        Frame door = new Frame("p2", "Door", List.of(), null, null, null, 0, 4, 6, 4);
        Registry there = THERE.with(List.of(new Change.Put(new Dashboard(
                "board", "Cold chain", "o", "creamery", 5, List.of(panel("air"), new Panel.FromCamera(door, "eye"))))));
        assertThat(only(pack(there, Set.of(), Set.of("board")).dashboards()).panels())
                .singleElement()
                .isInstanceOf(Panel.Line.class);
    }

    @Test
    void bringsRulesDashboardsAndTheirLimitsToWhatStandsForTheSameHere() {
        PackPlan plan = plan(HERE, EDITOR, pack(), PackWish.asProposed());
        assertThat(plan.parts())
                .extracting(PackPlan.Part::key, PackPlan.Part::fate, PackPlan.Part::why)
                .as("the cold room is found by its kind, the point by its quantity")
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple("limit-set/cold-rooms", Fate.NEW, ""),
                        org.assertj.core.groups.Tuple.tuple("limits/cold-store-1", Fate.NEW, ""),
                        org.assertj.core.groups.Tuple.tuple("rule/too-warm", Fate.NEW, ""),
                        org.assertj.core.groups.Tuple.tuple("rule/too-zone", Fate.NEW, ""),
                        org.assertj.core.groups.Tuple.tuple("dashboard/cold-chain", Fate.NEW, ""));
        Registry after = after(HERE, plan);
        Rule warm = after.all(Rule.class).stream()
                .filter(rule -> rule.name().equals("Too warm"))
                .findFirst()
                .orElseThrow();
        assertThat(warm.target()).isEqualTo(new Target.OfPoint("t"));
        assertThat(warm.condition()).as("46.4 °F").isEqualTo(new Condition.Above(8));
        assertThat(warm.deadBand()).as("1.8 °F").isEqualTo(1);
        assertThat(warm.recipients()).as("nobody there is told of what is here").isEmpty();
        LimitSet set = only(after.all(LimitSet.class));
        assertThat(set.siteId()).isEqualTo("dairy");
        assertThat(after.limitsOf(after.point(7).orElseThrow()))
                .map(LimitSet::id)
                .hasValue(set.id());
        Dashboard board = only(after.all(Dashboard.class));
        assertThat(board.panels().getFirst().frame().pointIds()).containsExactly("t");
        assertThat(board.ownerId()).isEqualTo("e");
        assertThat(board.siteId()).isEqualTo("dairy");
    }

    @Test
    void nothingThatIsNobodyElsesMatterTravels() {
        String text = PackFile.write(pack());
        assertThat(text).doesNotContain("ann@there.example", "creamery", "Creamery", "store\"", "ownerId");
    }

    @Test
    void theSamePackAgainChangesNothing() {
        Registry once = after(HERE, plan(HERE, EDITOR, pack(), PackWish.asProposed()));
        PackPlan again = plan(once, EDITOR, pack(), PackWish.asProposed());
        assertThat(again.again()).isTrue();
        assertThat(again.steps()).isEmpty();
        assertThat(fates(again).values()).containsOnly(Fate.SAME);
    }

    @Test
    void aLaterEditionChangesWhatNobodyChangedHere() {
        Registry once = after(
                HERE,
                plan(
                        HERE,
                        EDITOR,
                        pack(),
                        new PackWish(null, Map.of(), Map.of(), Set.of(), Set.of(), List.of("me@here.example"))));
        Pack later = pack(
                THERE.with(List.of(
                        new Change.Put(rule("warm", new Target.OfPoint("air"), new Condition.Above(50))),
                        new Change.Put(new Dashboard("board", "Cold chain", "o", null, 5, List.of())))),
                Set.of("warm"),
                Set.of("board"));
        Registry changed = with(
                once,
                Dashboard.class,
                board -> new Dashboard(
                        board.id(), "My own", board.ownerId(), board.siteId(), board.version() + 1, board.panels()));
        changed =
                with(changed, Rule.class, rule -> rule.under(rule.id(), false, List.of("you@here.example"), List.of()));
        PackPlan plan = plan(changed, EDITOR, later, PackWish.asProposed());
        assertThat(fates(plan))
                .containsEntry("rule/too-warm", Fate.UPDATED)
                .containsEntry("dashboard/cold-chain", Fate.CHANGED_HERE)
                .containsEntry("rule/too-zone", Fate.NOT_IN_PACK);
        Registry after = after(changed, plan);
        Rule warm = after.all(Rule.class).stream()
                .filter(rule -> rule.name().equals("Too warm"))
                .findFirst()
                .orElseThrow();
        assertThat(warm.condition()).isEqualTo(new Condition.Above(10));
        assertThat(warm.enabled()).as("whether it is on is decided here").isFalse();
        assertThat(warm.recipients()).containsExactly("you@here.example");
        assertThat(only(after.all(Dashboard.class)).name()).isEqualTo("My own");
        PackPlan replaced = plan(
                changed,
                EDITOR,
                later,
                new PackWish(null, Map.of(), Map.of(), Set.of(), Set.of("dashboard/cold-chain"), List.of()));
        assertThat(fates(replaced)).containsEntry("dashboard/cold-chain", Fate.UPDATED);
        assertThat(only(after(changed, replaced).all(Dashboard.class)).panels()).isEmpty();
    }

    @Test
    void whatWasRemovedHereStaysRemovedUnlessItIsWanted() {
        Registry once = after(HERE, plan(HERE, EDITOR, pack(), PackWish.asProposed()));
        Registry without = once.with(List.of(new Change.Remove(
                Kind.DASHBOARD, only(once.all(Dashboard.class)).id())));
        assertThat(fates(plan(without, EDITOR, pack(), PackWish.asProposed())))
                .containsEntry("dashboard/cold-chain", Fate.REMOVED_HERE);
        PackPlan wanted = plan(
                without,
                EDITOR,
                pack(),
                new PackWish(null, Map.of(), Map.of(), Set.of(), Set.of("dashboard/cold-chain"), List.of()));
        assertThat(after(without, wanted).all(Dashboard.class)).hasSize(1);
    }

    @Test
    void whatHasNoCounterpartIsSaidAndNothingIsHalfDone() {
        Registry bare = HERE.with(List.of(new Change.Remove(Kind.POINT, "t")));
        PackPlan plan = plan(bare, EDITOR, pack(), PackWish.asProposed());
        assertThat(plan.isPossible()).isFalse();
        assertThat(plan.edited()).isInstanceOfSatisfying(Edited.Refused.class, refused -> assertThat(refused.what())
                .isEqualTo("'Too warm' cannot be imported." + " Select a point for 'Cold store 1, Air'."));
        PackPlan without = plan(
                bare,
                EDITOR,
                pack(),
                new PackWish(
                        null,
                        Map.of(),
                        Map.of(),
                        Set.of("rule/too-warm", "rule/too-zone", "dashboard/cold-chain"),
                        Set.of(),
                        List.of()));
        assertThat(without.isPossible()).isTrue();
        assertThat(after(bare, without).all(Rule.class)).isEmpty();
    }

    @Test
    void aDashboardComesWithoutWhatNothingStandsFor() {
        Point humid = new Point("hum", 2, "Humidity", "store", Quantity.HUMIDITY, "%", null, null, null, true);
        Pack both = pack(
                THERE.with(List.of(
                        new Change.Put(humid),
                        new Change.Put(new Dashboard(
                                "board", "Cold chain", "o", null, 1, List.of(panel("air"), second(panel("hum"))))))),
                Set.of(),
                Set.of("board"));
        Registry bare = HERE.with(List.of(new Change.Remove(Kind.POINT, "t")));
        PackPlan plan = plan(bare, EDITOR, both, PackWish.asProposed());
        assertThat(plan.parts())
                .filteredOn(part -> part.key().equals("dashboard/cold-chain"))
                .first()
                .satisfies(part -> {
                    assertThat(part.fate()).isEqualTo(Fate.NEW);
                    assertThat(part.why())
                            .isEqualTo("Nothing is selected for 'Cold store 1, Air', so it is not shown.");
                });
    }

    private static Panel second(Panel panel) {
        Frame frame = panel.frame();
        return new Panel.Value(new Frame("p2", frame.title(), frame.pointIds(), null, null, null, 0, 4, 12, 2), null);
    }

    @Test
    void nobodyImportsWhereTheyMayNotEdit() {
        PackPlan other = plan(
                HERE,
                EDITOR,
                pack(),
                new PackWish(null, Map.of("cold-store-1", "shed"), Map.of(), Set.of(), Set.of(), List.of()));
        assertThat(other.places().getFirst().placeId()).as("not even seen").isNull();
        assertThat(other.isPossible()).isFalse();
        Person looker = new Person("l", "lu", "", false);
        Registry looked =
                HERE.with(List.of(new Change.Put(looker), new Change.Put(new Grant("h", "l", Right.LOOK, "dairy"))));
        PackPlan seen = plan(
                looked,
                looker,
                pack(),
                new PackWish(null, Map.of("cold-store-1", "room"), Map.of(), Set.of(), Set.of(), List.of()));
        assertThat(seen.parts())
                .filteredOn(part -> part.fate() != Fate.IMPOSSIBLE)
                .extracting(PackPlan.Part::key)
                .as("a dashboard of one's own is everybody's right")
                .containsExactly("dashboard/cold-chain");
    }

    @Test
    void anAssetKeepsTheLimitsThatItHas() {
        LimitSet own =
                new LimitSet("own", "Ours", Source.NONE, Quantity.TEMPERATURE, "°C", "", false, COLD.zones(), "dairy");
        Registry has = HERE.with(List.of(
                new Change.Put(own),
                new Change.Put(new Asset("room", "Butter room", "dairy", "Cold room", List.of("own")))));
        PackPlan plan = plan(has, EDITOR, pack(), PackWish.asProposed());
        assertThat(plan.parts())
                .filteredOn(part -> part.key().equals("limits/cold-store-1"))
                .first()
                .satisfies(part -> {
                    assertThat(part.fate()).isEqualTo(Fate.CHANGED_HERE);
                    assertThat(part.why()).isEqualTo("Its own limit set stays: 'Ours'.");
                });
    }

    @Test
    void onePackServesTwoMachinesWithOneLimitSet() {
        Registry two = HERE.with(List.of(
                new Change.Put(new Asset("room2", "Cheese room", "dairy", "Cold room", List.of())),
                new Change.Put(new Point(
                        "t2", 9, "Temperature", "room2", Quantity.TEMPERATURE, "°C", null, null, null, true))));
        assertThat(plan(two, EDITOR, pack(), PackWish.asProposed())
                        .places()
                        .getFirst()
                        .placeId())
                .as("two are possible, so that a person decides")
                .isNull();
        Registry first = after(two, plan(two, EDITOR, pack(), at("room")));
        assertThat(plan(first, EDITOR, pack(), PackWish.asProposed()).again())
                .as("where it went last time")
                .isTrue();
        PackPlan second = plan(first, EDITOR, pack(), at("room2"));
        assertThat(second.again()).isFalse();
        Registry both = after(first, second);
        assertThat(both.all(LimitSet.class)).hasSize(1);
        assertThat(both.all(Rule.class)).hasSize(4);
        assertThat(both.all(ImportedPack.class)).hasSize(2);
    }

    private static PackWish at(String place) {
        return new PackWish(null, Map.of("cold-store-1", place), Map.of(), Set.of(), Set.of(), List.of());
    }

    @Test
    void anImportThatHadNoPlaceForAPartGoesOnWhenThereIsOne() {
        Registry there = THERE.with(List.of(
                new Change.Put(new Asset("case", "Display case", "creamery", "display case", List.of())),
                new Change.Put(rule(
                        "case",
                        new Target.Selection("case", Quantity.TEMPERATURE, null, null, null),
                        new Condition.Above(6)))));
        Pack both = pack(there, Set.of("warm", "case"), Set.of());
        PackPlan first = plan(
                HERE,
                EDITOR,
                both,
                new PackWish(null, Map.of(), Map.of(), Set.of("rule/too-case"), Set.of(), List.of()));
        Registry once = after(HERE, first);
        Registry more = once.with(
                List.of(new Change.Put(new Asset("glass", "Glass case", "dairy", "display case", List.of()))));
        PackPlan second = plan(more, EDITOR, both, PackWish.asProposed());
        assertThat(second.again()).isTrue();
        assertThat(second.importId()).isEqualTo(first.importId());
        assertThat(fates(second)).containsEntry("rule/too-warm", Fate.SAME).containsEntry("rule/too-case", Fate.NEW);
        Registry twice = after(more, second);
        assertThat(twice.all(Rule.class)).hasSize(2);
        assertThat(only(twice.all(ImportedPack.class)).places()).hasSize(2);
    }

    @Test
    void aSetOfOnesOwnIsNotTakenForAShippedOneOfTheSameName() {
        LimitSet shipped = new LimitSet(
                "cold-rooms", "Cold rooms", Source.NONE, Quantity.TEMPERATURE, "°C", "", true, COLD.zones());
        Pack pack = pack(THERE.with(List.of(new Change.Put(shipped))), Set.of("zone"), Set.of());
        assertThat(pack.limitSets()).extracting(LimitSet::id).containsExactly("cold-rooms-2");
        Pack alike = PackFile.read(PackFile.write(pack).replace("cold-rooms-2", "cold-rooms"));
        PackPlan without = plan(
                HERE.with(List.of(new Change.Put(shipped))),
                EDITOR,
                alike,
                new PackWish(null, Map.of(), Map.of(), Set.of("limit-set/cold-rooms"), Set.of(), List.of()));
        assertThat(without.parts()).extracting(PackPlan.Part::key).doesNotContain("limits/cold-store-1");
    }

    @Test
    void aFullPackIsPlannedAmongThousandsOfPointsWithoutHoldingUpTheOthers() {
        List<Change> many = new ArrayList<>();
        for (int i = 0; i < 5_000; i++) {
            many.add(new Change.Put(new Point(
                    "p" + i, 100 + i, "Point " + i, "room", Quantity.PRESSURE, "bar", null, null, null, true)));
        }
        Registry crowded = HERE.with(many);
        Pack one = pack();
        Pack full = new Pack(
                1,
                "full",
                "Full",
                "",
                one.places(),
                one.points(),
                one.limitSets(),
                List.of(),
                java.util.stream.IntStream.range(0, 200)
                        .mapToObj(i -> one.rules().getFirst().under("rule-" + i, true, List.of(), List.of()))
                        .toList(),
                java.util.stream.IntStream.range(0, 200)
                        .mapToObj(i -> new Pack.PackedDashboard(
                                "board-" + i,
                                "Board",
                                one.dashboards().getFirst().panels()))
                        .toList());
        long began = System.nanoTime();
        PackPlan plan = plan(crowded, EDITOR, full, PackWish.asProposed());
        assertThat(plan.isPossible()).isTrue();
        assertThat(plan.steps()).hasSizeGreaterThan(400);
        assertThat(java.time.Duration.ofNanos(System.nanoTime() - began)).isLessThan(java.time.Duration.ofSeconds(5));
    }

    @Test
    void whoMakesAPackSeesAllThatIsInIt() {
        Person guest = new Person("g", "gus", "", false);
        List<Change> more = new ArrayList<>(List.of(new Change.Put(guest)));
        Registry blind = THERE.with(more);
        assertThat(PackMaker.refusal(
                        new Access(blind, guest),
                        new PackChoice("x", "", Set.of("warm"), Set.of(), Set.of(), Set.of())))
                .isPresent();
        assertThat(PackMaker.refusal(
                        new Access(THERE, OWNER), new PackChoice("x", "", Set.of(), Set.of(), Set.of(), Set.of())))
                .as("an empty pack")
                .isPresent();
    }

    private static <T extends org.openpasture.core.entity.Entity> Registry with(
            Registry now, Class<T> type, UnaryOperator<T> change) {
        return now.with(now.all(type).stream()
                .<Change>map(one -> new Change.Put(change.apply(one)))
                .toList());
    }
}
