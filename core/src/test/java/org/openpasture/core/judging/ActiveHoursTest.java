package org.openpasture.core.judging;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Holiday;
import org.openpasture.core.place.Holidays;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.rule.ActiveHours;
import org.openpasture.core.rule.Condition;
import org.openpasture.core.rule.Hold;
import org.openpasture.core.rule.Rule;
import org.openpasture.core.rule.SiteDays;
import org.openpasture.core.rule.Target;

/** A store door that must be shut at night: working hours in London are 08:00 to 17:00 on Mondays to Fridays. */
class ActiveHoursTest {
    private static final ZoneId LONDON = ZoneId.of("Europe/London");
    private static final SiteDays AT_LONDON = SiteDays.of(LONDON);
    /** A Monday in winter time. */
    private static final LocalDate MONDAY = LocalDate.of(2026, 3, 2);

    private static final Set<DayOfWeek> WEEK =
            Set.of(DayOfWeek.MONDAY, DayOfWeek.TUESDAY, DayOfWeek.WEDNESDAY, DayOfWeek.THURSDAY, DayOfWeek.FRIDAY);
    private static final ActiveHours AT_WORK =
            new ActiveHours(WEEK, LocalTime.of(8, 0), LocalTime.of(17, 0), false, Set.of());
    private static final ActiveHours OFF_WORK =
            new ActiveHours(WEEK, LocalTime.of(8, 0), LocalTime.of(17, 0), true, Set.of());

    private static Registry registry(ActiveHours hours, Condition condition, int holdSeconds) {
        return Registry.of(List.of(
                new Site("s", "Dairy", LONDON, null),
                new Asset("store", "Store", "s", "room", List.of()),
                new Point("p", 1, "Door", "store", Quantity.SWITCH, "", null, null, null, true),
                new Rule(
                        "r",
                        "Door open",
                        new Target.OfPoint("p"),
                        null,
                        condition,
                        null,
                        null,
                        new Hold.ForTime(holdSeconds),
                        hours,
                        0,
                        Severity.WARNING,
                        null,
                        null,
                        null,
                        null,
                        true,
                        List.of(),
                        "")));
    }

    private static Instant at(int day, String time) {
        return MONDAY.plusDays(day).atTime(LocalTime.parse(time)).atZone(LONDON).toInstant();
    }

    private static Event door(Instant at, double value) {
        return new Event.ReadingsArrived(new Arrival(
                at, Arrival.Origin.LIVE, List.of(new PointReading(1, new Reading(at, value, Quality.GOOD)))));
    }

    private static List<String> words(List<Effect> effects) {
        return effects.stream()
                .flatMap(effect -> switch (effect) {
                    case Effect.Raised(var alert) -> java.util.stream.Stream.of("raised " + local(alert.raisedAt()));
                    case Effect.Returned(var id, var at, var value) -> java.util.stream.Stream.of("over " + local(at));
                    case Effect.Recurred(var id, var at) -> java.util.stream.Stream.of("again " + local(at));
                    default -> java.util.stream.Stream.<String>empty();
                })
                .toList();
    }

    private static String local(Instant time) {
        return time.atZone(LONDON).getDayOfWeek().name().substring(0, 2) + " "
                + time.atZone(LONDON).toLocalTime();
    }

    private static List<String> run(JudgingCore core, Event... events) {
        List<Effect> effects = new ArrayList<>();
        for (Event event : events) {
            effects.addAll(core.apply(event));
        }
        return words(effects);
    }

    private static JudgingCore core(ActiveHours hours, Condition condition, int holdSeconds) {
        return new JudgingCore(registry(hours, condition, holdSeconds), JudgeState.empty());
    }

    /** Nobody opens the door at five: it was open before, and no reading says so again. */
    @Test
    void whatHoldsAlreadyIsAnAlertWhenTheHoursBeginAndOverWhenTheyEnd() {
        JudgingCore core = core(OFF_WORK, new Condition.Above(0.5), 0);
        assertThat(run(core, door(at(0, "15:00"), 1), new Event.TimePassed(at(0, "16:59"))))
                .isEmpty();
        assertThat(run(core, new Event.TimePassed(at(0, "17:01")))).containsExactly("raised MO 17:00");
        assertThat(run(core, new Event.TimePassed(at(1, "09:00")))).containsExactly("over TU 08:00");
        assertThat(run(core, new Event.TimePassed(at(1, "18:00")))).containsExactly("again TU 17:00");
    }

    @Test
    void aHoldTimeCountsFromTheBeginOfTheHoursAndNothingIsRaisedOutOfThem() {
        JudgingCore core = core(OFF_WORK, new Condition.Above(0.5), 1_800);
        assertThat(run(core, door(at(0, "12:00"), 1), new Event.TimePassed(at(0, "17:29"))))
                .isEmpty();
        assertThat(run(core, new Event.TimePassed(at(0, "17:31")))).containsExactly("raised MO 17:30");

        JudgingCore late = core(AT_WORK, new Condition.Above(0.5), 1_800);
        assertThat(run(late, door(at(0, "16:45"), 1), new Event.TimePassed(at(1, "08:29"))))
                .isEmpty();
        assertThat(run(late, new Event.TimePassed(at(1, "08:30")))).containsExactly("raised TU 08:30");
    }

    @Test
    void silenceOutOfTheHoursIsAnAlertWhenTheyBegin() {
        JudgingCore core = core(AT_WORK, new Condition.Silent(3_600), 0);
        assertThat(run(core, door(at(0, "16:30"), 0), new Event.TimePassed(at(1, "07:59"))))
                .isEmpty();
        assertThat(run(core, new Event.TimePassed(at(1, "08:00")))).containsExactly("raised TU 08:00");
        assertThat(run(core, door(at(1, "08:10"), 0))).containsExactly("over TU 08:10");
        assertThat(run(core, new Event.TimePassed(at(1, "09:11")))).containsExactly("again TU 09:10");
    }

    /** What a hub hands over later is judged by when it was measured. */
    @Test
    void aBacklogIsJudgedByTheHoursOfItsReadings() {
        JudgingCore core = core(OFF_WORK, new Condition.Above(0.5), 0);
        Arrival night = new Arrival(
                at(1, "10:00"),
                Arrival.Origin.LIVE,
                List.of(
                        new PointReading(1, new Reading(at(0, "12:00"), 1, Quality.GOOD)),
                        new PointReading(1, new Reading(at(0, "13:00"), 0, Quality.GOOD)),
                        new PointReading(1, new Reading(at(0, "22:00"), 1, Quality.GOOD)),
                        new PointReading(1, new Reading(at(0, "23:00"), 0, Quality.GOOD))));
        List<String> said = run(core, new Event.ReadingsArrived(night));
        assertThat(said).doesNotContain("raised MO 12:00");
    }

    @ParameterizedTest
    @CsvSource({
        "2026-03-02T08:00:00Z, true",
        "2026-03-02T07:59:59Z, false",
        "2026-03-02T17:00:00Z, false",
        "2026-03-07T12:00:00Z, false",
        "2026-03-30T07:30:00Z, true",
        "2026-04-03T12:00:00Z, false",
    })
    void hoursAreThoseOfTheSiteAlsoInSummerTimeAndOnHolidays(Instant time, boolean active) {
        ActiveHours goodFriday =
                new ActiveHours(WEEK, LocalTime.of(8, 0), LocalTime.of(17, 0), false, Set.of(LocalDate.of(2026, 4, 3)));
        assertThat(goodFriday.isActive(time, AT_LONDON)).isEqualTo(active);
    }

    @ParameterizedTest
    @CsvSource({
        "2026-03-02T22:00:00Z, true",
        "2026-03-03T05:59:00Z, true",
        "2026-03-03T06:00:00Z, false",
        "2026-03-07T03:00:00Z, true",
        "2026-03-08T03:00:00Z, false",
    })
    void hoursOverMidnightBelongToTheDayOnWhichTheyBegin(Instant time, boolean active) {
        ActiveHours nights = new ActiveHours(WEEK, LocalTime.of(22, 0), LocalTime.of(6, 0), null, null);
        assertThat(nights.isActive(time, AT_LONDON)).isEqualTo(active);
    }

    @Provide
    Arbitrary<ActiveHours> hours() {
        return Arbitraries.integers().between(0, 47).tuple2().flatMap(ends -> Arbitraries.of(DayOfWeek.values())
                .set()
                .ofMaxSize(7)
                .map(days -> new ActiveHours(
                        days,
                        LocalTime.MIN.plusMinutes(ends.get1() * 30L),
                        LocalTime.MIN.plusMinutes(ends.get2() * 30L),
                        ends.get1() % 2 == 0,
                        null)));
    }

    /** Over the nights that leave out an hour, and that have one twice. */
    @Property(tries = 300)
    void theNextChangeIsTheFirst(@ForAll("hours") ActiveHours hours, @ForAll boolean autumn) {
        Instant time = Instant.parse(autumn ? "2026-10-23T10:10:00Z" : "2026-03-27T10:10:00Z");
        Instant end = time.plus(Duration.ofDays(6));
        boolean before = hours.isActive(time, AT_LONDON);
        Instant next = hours.next(time, AT_LONDON);
        assertThat(next).isAfter(time);
        for (Instant at = time; at.isBefore(end) && at.isBefore(next); at = at.plus(Duration.ofMinutes(10))) {
            assertThat(hours.isActive(at, AT_LONDON)).as("%s", at).isEqualTo(before);
        }
    }

    @Test
    void holidaysOfTheSiteAreLeftOutOfHoursThatAreNotOfEveryDay() {
        SiteDays shut = new SiteDays(LONDON, Set.of(MONDAY));
        Instant noon = MONDAY.atTime(12, 0).atZone(LONDON).toInstant();
        ActiveHours always = new ActiveHours(null, LocalTime.of(8, 0), LocalTime.of(17, 0), null, null);
        ActiveHours anyway = new ActiveHours(WEEK, LocalTime.of(8, 0), LocalTime.of(17, 0), null, null, false);

        assertThat(AT_WORK.isActive(noon, shut)).isFalse();
        assertThat(OFF_WORK.isActive(noon, shut)).isTrue();
        assertThat(always.isActive(noon, shut)).isTrue();
        assertThat(anyway.isActive(noon, shut)).isTrue();
        assertThat(AT_WORK.next(noon, shut))
                .isEqualTo(MONDAY.plusDays(1).atTime(8, 0).atZone(LONDON).toInstant());
    }

    /** The store is open for work when somebody enters that today is a holiday. */
    @Test
    void aHolidayThatIsAddedTakesHoldAtOnce() {
        Registry before = registry(OFF_WORK, new Condition.Above(0.5), 0);
        JudgingCore core = new JudgingCore(before, JudgeState.empty());
        assertThat(run(core, door(at(0, "11:00"), 1), new Event.TimePassed(at(0, "12:00"))))
                .isEmpty();
        List<Effect> told = core.use(
                before.with(List.of(new Change.Put(new Holidays("s", List.of(new Holiday(MONDAY, "Plough Monday")))))));
        assertThat(words(told)).containsExactly("raised MO 12:00");
        assertThat(run(core, new Event.TimePassed(at(1, "09:00")))).containsExactly("over TU 08:00");
    }

    /** However often it is looked at and wherever it is restarted, the same is said. */
    @Property(tries = 60)
    void whatIsSaidDoesNotDependOnHowOftenTimePassesOrOnRestarts(
            @ForAll("hours") ActiveHours hours, @ForAll("changes") List<Boolean> open) {
        assertThat(story(hours, open, Duration.ofMinutes(10), false))
                .isEqualTo(story(hours, open, Duration.ofHours(31), false))
                .isEqualTo(story(hours, open, Duration.ofHours(2), true));
    }

    @Provide
    Arbitrary<List<Boolean>> changes() {
        return Arbitraries.of(true, false).list().ofSize(12);
    }

    private static List<String> story(
            ActiveHours hours, List<Boolean> open, @Nullable Duration tick, boolean restarts) {
        Registry registry = registry(hours, new Condition.Above(0.5), 1_200);
        JudgingCore core = new JudgingCore(registry, JudgeState.empty());
        List<String> said = new ArrayList<>();
        Instant time = at(0, "06:00");
        for (int i = 0; i < open.size(); i++) {
            Instant next = time.plus(Duration.ofHours(11));
            said.addAll(run(core, door(time, open.get(i) ? 1 : 0)));
            for (Instant at = time.plus(tick); at.isBefore(next); at = at.plus(tick)) {
                said.addAll(run(core, new Event.TimePassed(at)));
                if (restarts) {
                    core = new JudgingCore(registry, core.state());
                    said.addAll(words(core.goOn(List.of())));
                }
            }
            time = next;
        }
        said.addAll(run(core, new Event.TimePassed(time.plus(Duration.ofDays(8)))));
        return said;
    }
}
