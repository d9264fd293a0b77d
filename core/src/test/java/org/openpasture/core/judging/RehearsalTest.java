package org.openpasture.core.judging;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Measure;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.Target;

class RehearsalTest {
    private static final Instant START = Instant.parse("2026-03-01T08:00:00Z");
    private static final Registry FARM = Registry.of(List.of(
            new Site("s", "Farm", ZoneOffset.UTC, null),
            new Asset("barn", "Barn", "s", "barn", List.of()),
            point("a", 1),
            point("b", 2)));

    private static Point point(String id, int number) {
        return new Point(id, number, "Air " + id, "barn", Quantity.TEMPERATURE, "°C", null, null, null, true);
    }

    private static Rule rule(Measure measure, Condition condition, Hold hold) {
        return new Rule(
                "new",
                "Too warm",
                new Target.Selection("s", Quantity.TEMPERATURE, null, null, null),
                measure,
                condition,
                List.of(),
                null,
                hold,
                null,
                1,
                Severity.WARNING,
                null,
                null,
                null,
                null,
                true,
                List.of(),
                "");
    }

    private record At(long second, int point, double value) {
        Reading reading() {
            return Reading.good(START.plusSeconds(second), value);
        }
    }

    private static Rehearsal.Result rehearsed(Rule rule, List<At> story, long until) {
        Rehearsal rehearsal = new Rehearsal(FARM, rule, START, List.of(0, 600));
        story.forEach(one -> rehearsal.next(one.point(), one.reading()));
        return rehearsal.end(START.plusSeconds(until));
    }

    @Test
    void itSaysHowOftenForHowLongAndWhichHoldLeavesTheSpikesOut() {
        Rule rule = rule(Measure.LAST, new Condition.Above(25), new Hold.ForTime(120));
        List<At> story = List.of(
                new At(0, 1, 20),
                new At(60, 1, 30),
                new At(120, 1, 20),
                new At(600, 1, 30),
                new At(1_200, 1, 31),
                new At(1_800, 1, 20),
                new At(3_000, 2, 40));
        Rehearsal.Result result = rehearsed(rule, story, 3_600);
        assertThat(result.readings()).isEqualTo(7);
        assertThat(result.times()).isEqualTo(2);
        assertThat(result.seconds()).isEqualTo(1_080 + 480);
        assertThat(result.found().getFirst().alert().raisedAt()).isEqualTo(START.plusSeconds(720));
        assertThat(result.found().getFirst().over()).isEqualTo(START.plusSeconds(1_800));
        assertThat(result.found().getLast().over()).isNull();
        assertThat(result.timesByHold()).isEqualTo(Map.of(0, 3L, 600, 2L));
    }

    @Test
    void silenceIsTriedToo() {
        Rehearsal.Result result = rehearsed(
                rule(Measure.LAST, new Condition.Silent(900), new Hold.ForTime(0)),
                List.of(new At(0, 1, 20), new At(0, 2, 20), new At(2_000, 1, 20), new At(2_100, 2, 20)),
                2_200);
        assertThat(result.times()).isEqualTo(2);
        assertThat(result.found()).extracting(found -> found.alert().raisedAt()).containsOnly(START.plusSeconds(900));
    }

    @Provide
    Arbitrary<List<At>> stories() {
        return Combinators.combine(
                        Arbitraries.of(1, 2), Arbitraries.of(20.0, 24.5, 26.0, 30.0), Arbitraries.of(1, 60, 400))
                .as((point, value, step) -> new At(step, point, value))
                .list()
                .ofMaxSize(60)
                .map(steps -> {
                    List<At> story = new ArrayList<>();
                    long second = 0;
                    for (At step : steps) {
                        second += step.second();
                        story.add(new At(second, step.point(), step.value()));
                    }
                    return story;
                });
    }

    /** What is tried is what will be: the same readings, live, with somebody who acknowledges at once. */
    @Property(tries = 150)
    void aRehearsalIsWhatWouldHaveBeenLive(@ForAll("stories") List<At> story) {
        for (Rule rule : List.of(
                rule(Measure.LAST, new Condition.Above(25), new Hold.ForTime(300)),
                rule(Measure.LAST, new Condition.Above(25), new Hold.ForReports(2)),
                rule(new Measure.Mean(1_200), new Condition.Above(25), new Hold.ForTime(0)),
                rule(Measure.LAST, new Condition.Silent(500), new Hold.ForTime(0)))) {
            JudgingCore live = new JudgingCore(FARM.with(List.of(new Change.Put(rule))), JudgeState.empty());
            List<Instant> raised = new ArrayList<>();
            live.apply(new Event.TimePassed(START));
            for (At one : story) {
                Instant now = START.plusSeconds(one.second());
                take(
                        live,
                        live.apply(new Event.ReadingsArrived(new Arrival(
                                now, Arrival.Origin.LIVE, List.of(new PointReading(one.point(), one.reading()))))),
                        raised);
            }
            take(live, live.apply(new Event.TimePassed(START.plusSeconds(1_000_000))), raised);
            assertThat(rehearsed(rule, story, 1_000_000).found())
                    .extracting(found -> found.alert().raisedAt())
                    .containsExactlyInAnyOrderElementsOf(raised);
        }
    }

    private static void take(JudgingCore live, List<Effect> effects, List<Instant> raised) {
        for (Effect effect : effects) {
            if (effect instanceof Effect.Raised(Alert alert)) {
                raised.add(alert.raisedAt());
                live.apply(new Event.AlertAcknowledged(alert.learntAt(), alert.id(), "ann", ""));
            }
        }
    }
}
