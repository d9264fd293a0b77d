package org.openpasture.core.series;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Arrays;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.IntToDoubleFunction;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;

class ChunkCodecTest {
    @Provide
    Arbitrary<SeriesSlice> slices() {
        Arbitrary<Long> steps = Arbitraries.oneOf(
                Arbitraries.longs().between(1, 20_000),
                Arbitraries.just(10_000L),
                Arbitraries.longs().between(1, 1L << 40));
        Arbitrary<Double> values = Arbitraries.oneOf(
                Arbitraries.doubles(),
                Arbitraries.integers().map(i -> i / 100.0),
                Arbitraries.of(-0.0, 0.0, 1e300, 0.1 + 0.2));
        return Combinators.combine(
                        Arbitraries.longs().between(-1L << 40, 1L << 41),
                        steps.array(long[].class).ofMinSize(1).ofMaxSize(200),
                        values.array(double[].class).ofSize(200),
                        Arbitraries.integers().between(0, 2).array(int[].class).ofSize(200))
                .as((start, step, value, quality) -> {
                    SeriesSlice.Builder slice = new SeriesSlice.Builder(step.length);
                    long time = start;
                    for (int i = 0; i < step.length; i++) {
                        slice.add(time, value[i], (byte) quality[i]);
                        time += step[i];
                    }
                    return slice.slice();
                });
    }

    private static byte[] encoded(SeriesSlice slice) {
        try (ChunkCodec codec = new ChunkCodec()) {
            return codec.encode(slice);
        }
    }

    @Property
    void whatIsPackedReadsBackToTheLastBit(@ForAll("slices") SeriesSlice slice) {
        SeriesSlice back = ChunkCodec.decode(encoded(slice));
        assertThat(back.times()).containsExactly(slice.times());
        assertThat(Arrays.stream(back.values())
                        .mapToLong(Double::doubleToRawLongBits)
                        .toArray())
                .containsExactly(Arrays.stream(slice.values())
                        .mapToLong(Double::doubleToRawLongBits)
                        .toArray());
        assertThat(back.qualities()).containsExactly(slice.qualities());
    }

    @Property
    void damagedBytesEndInAClearError(@ForAll("slices") SeriesSlice slice, @ForAll int place, @ForAll byte with) {
        byte[] bytes = encoded(slice);
        bytes[Math.floorMod(place, bytes.length)] = with;
        try {
            ChunkCodec.decode(bytes);
        } catch (IllegalArgumentException expected) {
            assertThat(expected).hasMessageContaining("damaged");
        }
    }

    @Property
    void bytesThatWereNeverAChunkEndInAClearError(@ForAll @Size(max = 100) byte[] bytes) {
        try {
            ChunkCodec.decode(bytes);
        } catch (IllegalArgumentException expected) {
            assertThat(expected).hasMessageContaining("damaged");
        }
    }

    private static double bytesAReading(int intervalMillis, int jitterMillis, IntToDoubleFunction value) {
        Random random = new Random(7);
        SeriesSlice.Builder slice = new SeriesSlice.Builder(1_000);
        for (int i = 0; i < 1_000; i++) {
            slice.add(
                    1_700_000_000_000L
                            + (long) i * intervalMillis
                            + (jitterMillis == 0 ? 0 : random.nextInt(jitterMillis)),
                    value.applyAsDouble(i),
                    (byte) 0);
        }
        return encoded(slice.slice()).length / 1_000.0;
    }

    @Test
    void whatSensorsSendTakesFewBytes() {
        Random random = new Random(5);
        double[] temperature = {20};
        IntToDoubleFunction slow = i -> Math.rint((temperature[0] += (random.nextInt(3) - 1) * 0.1) * 10) / 10;
        assertThat(bytesAReading(600_000, 0, slow)).isLessThan(0.6);
        assertThat(bytesAReading(10_000, 40, slow)).isLessThan(2.2);
        assertThat(bytesAReading(10_000, 40, i -> Math.rint(220 + 60 * random.nextGaussian()) / 100))
                .isLessThan(4);
        assertThat(bytesAReading(10_000, 0, i -> 0.00371 * (512 + random.nextInt(9)) * Math.PI))
                .as("a converter's steps")
                .isLessThan(1.5);
        assertThat(bytesAReading(10_000, 0, i -> i / 50 % 2)).as("a switch").isLessThan(0.2);
    }

    @Test
    void aChunkIsNeverEmptyAndNeverHuge() {
        assertThatThrownBy(() -> encoded(SeriesSlice.empty())).hasMessageContaining("0 readings");
    }

    @Property
    void mergingTakesTheNewerOfOneMoment(
            @ForAll @Size(max = 30) Set<Short> olderTimes, @ForAll @Size(max = 30) Set<Short> newerTimes) {
        TreeSet<Short> older = new TreeSet<>(olderTimes);
        TreeSet<Short> newer = new TreeSet<>(newerTimes);
        SeriesSlice.Builder a = new SeriesSlice.Builder(4);
        older.forEach(time -> a.add(time, 1, (byte) 0));
        SeriesSlice.Builder b = new SeriesSlice.Builder(4);
        newer.forEach(time -> b.add(time, 2, (byte) 0));
        SeriesSlice merged = a.slice().merge(b.slice());
        TreeSet<Short> both = new TreeSet<>(older);
        both.addAll(newer);
        assertThat(merged.times())
                .containsExactly(both.stream().mapToLong(Short::longValue).toArray());
        assertThat(merged.values())
                .containsExactly(both.stream()
                        .mapToDouble(time -> newer.contains(time) ? 2 : 1)
                        .toArray());
        int[] replaced = {0};
        SeriesSlice.replaced(a.slice(), b.slice(), (old, by) -> replaced[0]++);
        assertThat(replaced[0])
                .isEqualTo((int) older.stream().filter(newer::contains).count());
    }
}
