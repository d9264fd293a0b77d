package org.openpasture.core.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Reason;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.limit.LimitLibrary;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.people.Person;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Averaging;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;

/** Limits for a mean get the points that they hold for. */
class MeansForLimitsTest {
    private static final Averaging SHIFT = new Averaging(Averaging.Rule.MEAN, 480);
    private static final Person ANN = new Person("ann", "Ann", "", true);
    private static final String EIGHT_HOURS = "ammonia-eu-8-h";
    private static final String QUARTER = "ammonia-eu-15-min";
    private static final String HOUSE = "animal-house-ammonia";

    private static Asset barn(String... sets) {
        return new Asset("barn", "Calf barn", "farm", "barn", List.of(sets));
    }

    private static Point point(String id, int number, Quantity quantity) {
        return new Point(id, number, "Ammonia", "barn", quantity, "ppm", null, null, null, true);
    }

    private static Registry registry(Entity... more) {
        List<Entity> all = new ArrayList<>(LimitLibrary.shipped());
        all.add(new Site("farm", "Farm", ZoneOffset.UTC, null));
        all.add(ANN);
        all.addAll(List.of(more));
        return Registry.of(all);
    }

    private static Registry given(Registry now, Edited edited) {
        AtomicInteger ids = new AtomicInteger();
        assertThat(edited).isInstanceOf(Changes.class);
        return now.with(MeansForLimits.with(now, (Changes) edited, () -> 70, () -> "made" + ids.incrementAndGet())
                .steps());
    }

    @Test
    void anAssetThatIsGivenLimitsForMeansGetsTheMeansOfItsPoints() {
        Registry now = registry(barn(), point("nh3", 5, Quantity.AMMONIA), point("co2", 6, Quantity.CARBON_DIOXIDE));
        Registry after = given(now, Changes.put(barn(HOUSE, EIGHT_HOURS, QUARTER)));
        assertThat(after.pointsOf("barn"))
                .filteredOn(point -> point.formula() != null)
                .extracting(Point::name, Point::number, Point::averaging)
                .containsExactly(
                        tuple("Ammonia, mean over 8 h", 71, SHIFT),
                        tuple("Ammonia, mean over 15 min", 72, new Averaging(Averaging.Rule.MEAN, 15)));
        assertThat(limitsOf(after, "nh3")).isEqualTo(HOUSE);
        assertThat(limitsOf(after, "made1")).isEqualTo(EIGHT_HOURS);
        assertThat(limitsOf(after, "made2")).isEqualTo(QUARTER);
        assertThat(given(after, Changes.put(barn(HOUSE, EIGHT_HOURS, QUARTER))).all(Point.class))
                .as("once")
                .hasSize(4);
    }

    private static String limitsOf(Registry now, String point) {
        return now.limitsOf(now.find(Point.class, point).orElseThrow())
                .map(LimitSet::id)
                .orElse("none");
    }

    @Test
    void aPointThatComesLaterGetsItsMeanToo() {
        Registry now = registry(barn(EIGHT_HOURS));
        Registry after = given(now, Changes.put(point("nh3", 1, Quantity.AMMONIA)));
        assertThat(after.all(Point.class)).extracting(Point::name).contains("Ammonia, mean over 8 h");
        assertThat(limitsOf(after, "nh3")).isEqualTo("none");
        assertThat(given(after, Changes.put(point("nh3", 1, Quantity.AMMONIA).withReleased(false)))
                        .all(Point.class))
                .as("a change of it adds nothing")
                .hasSize(2);
    }

    /** Ammonia above 15 ppm is over when it is over, not eight hours later. */
    @Test
    void aLimitOfARulesOwnIsForWhatIsMeasuredAndZonesAreForAll() {
        Registry now = given(registry(barn(EIGHT_HOURS)), Changes.put(point("nh3", 1, Quantity.AMMONIA)));
        for (Target target : List.of(
                new Target.OfAsset("barn", Quantity.AMMONIA),
                new Target.Selection("farm", Quantity.AMMONIA, null, null, null))) {
            assertThat(now.pointsOf(rule(target, new Condition.Above(15))))
                    .extracting(Point::id)
                    .containsExactly("nh3");
            assertThat(now.pointsOf(rule(target, new Condition.InZone(Severity.WARNING))))
                    .extracting(Point::id)
                    .containsExactly("nh3", "made1");
        }
        assertThat(now.pointsOf(rule(new Target.OfPoint("made1"), new Condition.Above(15))))
                .as("where somebody asks for it")
                .hasSize(1);
    }

    private static Rule rule(Target target, Condition condition) {
        return new Rule(
                "r", "Ammonia", target, condition, new Hold.ForTime(0), 0, Severity.WARNING, true, List.of(), "");
    }

    @Test
    void aMeanIsReleasedWithItsPoint() {
        Registry now = registry(
                barn(),
                point("nh3", 1, Quantity.AMMONIA).withReleased(false),
                new Point(
                        "mean",
                        2,
                        "Mean",
                        "barn",
                        Quantity.AMMONIA,
                        "ppm",
                        null,
                        null,
                        null,
                        false,
                        new Formula.OverTime("nh3", SHIFT),
                        List.of()));
        Edited released = PointEdits.edit(new Access(now, ANN), new PointWish.Release("nh3"));
        assertThat(now.with(((Changes) released).steps()).all(Point.class)).allMatch(Point::released);
    }

    /** It moves with its point, and is called by it as long as nobody calls it something else. */
    @Test
    void aMeanGoesAlongWithItsPoint() {
        Asset stable = new Asset("stable", "Stable", "farm", "barn", List.of());
        Registry now = given(registry(stable, barn(EIGHT_HOURS)), Changes.put(point("nh3", 1, Quantity.AMMONIA)));
        Edited moved = PointEdits.edit(
                new Access(now, ANN),
                new PointWish.Change(
                        "nh3",
                        new PointWish.Properties(
                                "NH3", "stable", Quantity.AMMONIA, null, null, null, null, false, null, null, null),
                        true));
        Registry after = given(now, moved);
        assertThat(after.all(Point.class))
                .extracting(Point::name, Point::placeId, Point::released)
                .containsExactly(tuple("NH3", "stable", false), tuple("NH3, mean over 8 h", "stable", false));
        assertThat(limitsOf(after, "made1")).as("there are none there").isEqualTo("none");
    }

    @Test
    void limitsForAMeanAreNotThoseOfTheLastValue() {
        Registry now = registry(barn(), point("nh3", 1, Quantity.AMMONIA));
        assertThat(PointEdits.edit(
                        new Access(now, ANN),
                        new PointWish.Change(
                                "nh3",
                                new PointWish.Properties(
                                        "Ammonia",
                                        "barn",
                                        Quantity.AMMONIA,
                                        null,
                                        EIGHT_HOURS,
                                        null,
                                        null,
                                        true,
                                        null,
                                        null,
                                        null),
                                false)))
                .isInstanceOfSatisfying(Refused.class, refused -> {
                    assertThat(refused.reason()).isEqualTo(Reason.INVALID);
                    assertThat(refused.what()).contains("is for the mean over 8 h; the point gives the last value");
                });
    }

    @Test
    void aSetInUseKeepsItsRule() {
        LimitSet own = LimitLibrary.shipped().stream()
                .filter(set -> set.id().equals(EIGHT_HOURS))
                .findFirst()
                .orElseThrow()
                .as("own", null);
        LimitSet other = new LimitSet(
                "own",
                own.title(),
                own.source(),
                own.quantity(),
                own.unit(),
                own.appliesTo(),
                false,
                own.zones(),
                null,
                Averaging.LAST);
        Registry unused = registry(own);
        assertThat(SharedEdits.edit(new Access(unused, ANN), new SharedWish.Change(other)))
                .isInstanceOf(Changes.class);
        Registry used = registry(own, barn("own"));
        assertThat(SharedEdits.edit(new Access(used, ANN), new SharedWish.Change(other)))
                .isInstanceOfSatisfying(
                        Refused.class, refused -> assertThat(refused.what()).contains("mean over 8 h"));
    }

    @Test
    void aDirectionHasNoMean() {
        Point wind = new Point("w", 1, "Wind", "barn", Quantity.WIND_DIRECTION, "°", null, null, null, true);
        Registry now = registry(barn(), wind);
        assertThat(PointEdits.edit(
                        new Access(now, ANN),
                        new PointWish.Make(
                                "m",
                                new PointWish.Properties(
                                        "Mean",
                                        "barn",
                                        Quantity.WIND_DIRECTION,
                                        null,
                                        null,
                                        null,
                                        null,
                                        true,
                                        new Formula.OverTime("w", SHIFT),
                                        null,
                                        null))))
                .isInstanceOfSatisfying(Refused.class, refused -> assertThat(refused.what())
                        .isEqualTo("There is no mean over 8 h of wind direction."));
    }
}
