package org.openpasture.core.packing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.ZoneOffset;
import java.util.List;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited;
import org.openpasture.core.packing.RuleFile.Fate;
import org.openpasture.core.packing.RuleFile.Planned;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;
import org.openpasture.core.yaml.YamlFile.Unreadable;

class RuleFileTest {
    private static final Person OWNER = new Person("o", "owner", "", true);
    private static final Person EDITOR = new Person("e", "ed", "", false);
    private static final Registry PLACES = Registry.of(List.of(
            new Site("s", "Creamery", ZoneOffset.UTC, null),
            new Site("f", "Farm", ZoneOffset.UTC, null),
            new Asset("c1", "Cellar", "s", "room", List.of()),
            new Asset("c2", "Cellar", "f", "room", List.of()),
            point("p1", 1, "Air", "c1"),
            point("p2", 2, "Air", "c2"),
            point("p3", 3, "Wall", "c1"),
            OWNER,
            EDITOR,
            new Grant("g", "e", Right.EDIT, "s")));

    private static Point point(String id, int number, String name, String place) {
        return new Point(id, number, name, place, Quantity.TEMPERATURE, "°C", null, null, null, true);
    }

    private static Access as(Person person, Registry registry) {
        return new Access(registry, person);
    }

    private static List<Planned> plan(Access access, String text) {
        int[] number = {0};
        return RuleFile.plan(access, text, () -> "new-" + ++number[0], UnaryOperator.identity());
    }

    private static final String WARM = """
            rules:
              - name: Warm wall
                target: {kind: point, pointId: Wall}
                condition: {kind: above, limit: 14}
                severity: warning
                recipients: [anna@creamery.example]
            """;

    private static Registry after(Registry before, List<Planned> plan) {
        return before.with(((Edited.Changes) RuleFile.edit(as(OWNER, before), plan)).steps());
    }

    private static void unreadable(String reason, Access access, String text) {
        assertThatThrownBy(() -> plan(access, text))
                .isInstanceOf(Unreadable.class)
                .hasMessageContaining(reason);
    }

    @Test
    void aRuleThatIsNotHereIsAddedWithItsNamesTurnedIntoIds() {
        Planned one = plan(as(OWNER, PLACES), WARM).getFirst();
        assertThat(one.fate()).isEqualTo(Fate.ADDED);
        assertThat(one.rule().target()).isEqualTo(new Target.OfPoint("p3"));
        assertThat(one.rule().condition()).isEqualTo(new Condition.Above(14));
        assertThat(one.rule().enabled()).isTrue();
    }

    @Test
    void whatTheFileLeavesOutStaysAsItIs() {
        Registry with = after(PLACES, plan(as(OWNER, PLACES), WARM));
        List<Planned> plan = plan(as(OWNER, with), """
                rules:
                  - name: Warm wall
                    condition: {kind: above, limit: 15}
                """);
        assertThat(plan).singleElement().satisfies(one -> {
            assertThat(one.fate()).isEqualTo(Fate.CHANGED);
            assertThat(one.changed()).containsExactly("condition");
            assertThat(one.rule().recipients()).containsExactly("anna@creamery.example");
            assertThat(one.rule().id()).isEqualTo("new-1");
        });
        assertThat(plan(as(OWNER, with), WARM)).singleElement().satisfies(one -> assertThat(one.fate())
                .isEqualTo(Fate.SAME));
        assertThat(plan(as(OWNER, with), WARM.replace("[anna@creamery.example]", "null")))
                .singleElement()
                .satisfies(one -> assertThat(one.rule().recipients()).isEmpty());
    }

    @Test
    void whatIsWrittenReadsBackAsTheSame() {
        Registry with = after(PLACES, plan(as(OWNER, PLACES), WARM + """
                  - name: Any cellar
                    target: {kind: selection, placeId: Creamery, quantity: temperature, each: point}
                    measure: {kind: mean, seconds: 3600}
                    condition: {kind: outside, low: 2, high: 9.5}
                    also:
                      - target: {kind: point, pointId: "2"}
                        condition: {kind: below, limit: 30}
                    severity: critical
                    hold: {kind: time, seconds: 60}
                    guidance: |
                      Shut the door.
                      Then look again.
                """));
        String text = RuleFile.write(as(OWNER, with), with.all(Rule.class));
        assertThat(text).contains("pointId: Cellar/Wall", "placeId: Creamery").doesNotContain("id: new-");
        assertThat(plan(as(OWNER, with), text)).hasSize(2).allMatch(one -> one.fate() == Fate.SAME);
    }

    @Test
    void namesThatSeveralHaveAreAskedAbout() {
        unreadable("'Air' is the name of 2 points. Write the place before it, ", as(OWNER, PLACES), named("Air"));
        unreadable("or its number, ", as(OWNER, PLACES), named("Cellar/Air"));
        assertThat(plan(as(OWNER, PLACES), named("2")).getFirst().rule().target())
                .isEqualTo(new Target.OfPoint("p2"));
        assertThat(plan(as(EDITOR, PLACES), named("Air")).getFirst().rule().target())
                .as("of two the editor sees one")
                .isEqualTo(new Target.OfPoint("p1"));
    }

    private static String named(String point) {
        return WARM.replace("Wall}", "\"" + point + "\"}");
    }

    @Test
    void whatSomebodyMayNotSeeIsNoName() {
        unreadable("there is no point 'p2' that you may see", as(EDITOR, PLACES), named("p2"));
        unreadable(
                "there is no place 'Farm' that you may see",
                as(EDITOR, PLACES),
                WARM.replace(
                        "{kind: point, pointId: Wall}", "{kind: selection, placeId: Farm, quantity: temperature}"));
    }

    @Test
    void ofAPlanThatIsRefusedNothingIsDone() {
        List<Planned> plan = plan(as(OWNER, PLACES), WARM + """
                  - name: Colder than can be
                    target: {kind: point, pointId: Wall}
                    condition: {kind: below, limit: -400}
                    severity: warning
                """);
        assertThat(RuleFile.edit(as(OWNER, PLACES), plan))
                .isInstanceOfSatisfying(Edited.Refused.class, refused -> assertThat(refused.what())
                        .startsWith("Rule 'Colder than can be': "));
    }

    @Test
    void whatMakesNoSenseIsSaidWithItsRule() {
        Access owner = as(OWNER, PLACES);
        unreadable("The file has no rules", owner, "");
        unreadable("The file has no rules", owner, "rules: []");
        unreadable("no field 'rule' beside 'rules'", owner, "rule: []\nrules: []");
        unreadable("Each rule has a 'name'", owner, "rules: [{severity: warning}]");
        unreadable("has no 'severity'", owner, WARM.replace("severity: warning", "severity: null"));
        unreadable("there is no field 'limits' there", owner, WARM.replace("severity:", "limits: 5\n    severity:"));
        unreadable("there is no kind 'warmer'", owner, WARM.replace("kind: above", "kind: warmer"));
        unreadable(
                "anchor or alias", owner, WARM.replace("[anna@creamery.example]", "&a [x@y.example]\n    rounds: *a"));
        unreadable("is in the file twice", owner, WARM + WARM.substring(WARM.indexOf("  - name")));
        Registry with = after(PLACES, plan(owner, WARM));
        unreadable("is in the file twice", as(OWNER, with), WARM + WARM.substring(WARM.indexOf("  - name")));
        unreadable("no rule with the id 'gone'", owner, WARM.replace("- name", "- id: gone\n    name"));
    }
}
