package org.openpasture.engine.report;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;

class AxisTest {
    private static final ZoneId LONDON = ZoneId.of("Europe/London");

    @Test
    void marksRoundValues() {
        assertThat(Axis.values(-3.2, 11.8)).extracting(Axis.Mark::text).containsExactly("0", "5", "10");
        assertThat(Axis.values(0.01, 0.09)).extracting(Axis.Mark::text).containsExactly("0.02", "0.04", "0.06", "0.08");
    }

    @Test
    void marksTheBeginningsOfDaysOfTheSite() {
        List<Axis.Mark> marks =
                Axis.times(Instant.parse("2026-10-23T12:00:00Z"), Instant.parse("2026-10-28T12:00:00Z"), LONDON);
        assertThat(marks).extracting(Axis.Mark::text).containsExactly("24 Oct", "25 Oct", "26 Oct", "27 Oct", "28 Oct");
        assertThat(marks.get(3).at() - marks.get(1).at())
                .as("a day of 25 hours lies between")
                .isEqualTo(Duration.ofHours(49).toMillis());
    }

    @Property
    void hasSomeMarksOfValuesButNotTooMany(
            @ForAll @DoubleRange(min = -1e9, max = 1e9) double lowest,
            @ForAll @DoubleRange(min = 0.01, max = 1e9) double span) {
        double highest = lowest + Math.max(span, Math.abs(lowest) * 1e-9);
        assertThat(Axis.values(lowest, highest)).hasSizeBetween(1, 9);
    }

    @Property
    void hasMarksInsideOfAnyPeriod(@ForAll @LongRange(min = 60, max = 3 * 366 * 86_400L) long seconds) {
        Instant from = Instant.parse("2026-03-28T07:31:12Z");
        Instant until = from.plusSeconds(seconds);
        assertThat(Axis.times(from, until, LONDON))
                .hasSizeLessThanOrEqualTo(15)
                .allMatch(mark -> mark.at() >= from.toEpochMilli() && mark.at() < until.toEpochMilli());
    }
}
