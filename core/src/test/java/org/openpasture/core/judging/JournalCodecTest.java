package org.openpasture.core.judging;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import org.openpasture.core.alert.Shelf;
import org.openpasture.core.reading.Arrival;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;

class JournalCodecTest {
    @Provide
    Arbitrary<List<Event>> events() {
        Arbitrary<Instant> times =
                Arbitraries.longs().between(0, 4_102_444_800_000L).map(Instant::ofEpochMilli);
        Arbitrary<PointReading> readings = Combinators.combine(
                        Arbitraries.integers().greaterOrEqual(1),
                        times,
                        Arbitraries.doubles(),
                        Arbitraries.of(Quality.class))
                .as((point, time, value, quality) -> new PointReading(point, new Reading(time, value, quality)));
        Arbitrary<Event> arrivals = Combinators.combine(
                        times,
                        Arbitraries.of(Arrival.Origin.class),
                        readings.list().ofMaxSize(20))
                .as((time, origin, list) -> new Event.ReadingsArrived(new Arrival(time, origin, list)));
        Arbitrary<Event> acknowledgements = Combinators.combine(
                        times,
                        Arbitraries.strings().ofMaxLength(20),
                        Arbitraries.strings().ofMaxLength(20))
                .as((time, id, note) -> new Event.AlertAcknowledged(time, id, "somebody", note));
        Arbitrary<Event> others = Combinators.combine(times, times, times)
                .as((at, from, until) -> at.getEpochSecond() % 2 == 0
                        ? new Event.ReadingsErased(at, 7, from, until)
                        : new Event.ClockMoved(at, java.time.Duration.between(from, until)));
        Arbitrary<Event> shelves = Combinators.combine(
                        times, times, Arbitraries.strings().ofMaxLength(20))
                .as((at, until, reason) -> switch ((int) (until.getEpochSecond() % 3)) {
                    case 0 -> new Event.RuleShelved(at, "r~p1", new Shelf(until, "somebody", reason));
                    case 1 -> new Event.RuleShelved(at, "r", new Shelf(null, "somebody", reason));
                    default -> new Event.RuleUnshelved(at, "r", reason);
                });
        return Arbitraries.oneOf(arrivals, acknowledgements, shelves, others)
                .list()
                .ofMaxSize(10);
    }

    @Property
    void whatIsWrittenReadsBack(@ForAll("events") List<Event> events) {
        assertThat(JournalCodec.decode(JournalCodec.encode(events))).isEqualTo(events);
    }

    @Property
    void aRowThatIsCutOffIsNoticed(@ForAll("events") List<Event> events) {
        byte[] bytes = JournalCodec.encode(events);
        if (bytes.length > 2) {
            assertThatThrownBy(() -> JournalCodec.decode(Arrays.copyOf(bytes, bytes.length - 1)))
                    .isInstanceOf(IllegalArgumentException.class);
        }
    }

    @Property
    void damagedBytesEndInAClearError(@ForAll @Size(max = 200) byte[] bytes) {
        try {
            JournalCodec.decode(bytes);
        } catch (IllegalArgumentException expected) {
            assertThat(expected).hasMessageContaining("journal row");
        }
    }

    @Test
    void timeThatPassedIsNotKept() {
        assertThat(JournalCodec.decode(JournalCodec.encode(List.of(new Event.TimePassed(Instant.EPOCH)))))
                .isEmpty();
    }
}
