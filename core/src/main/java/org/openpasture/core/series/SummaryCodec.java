package org.openpasture.core.series;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.zip.Deflater;

/**
 * A block of summaries of one point and one width, packed for the disk column by column.
 *
 * <p>Body, before {@link Packing}: count; starts in seconds as differences of differences; usable and bad readings of
 * each; then for those with usable readings lowest, highest, mean and last as {@link DoubleColumn}s, and the moments of
 * lowest and highest in seconds after the start; the zone labels that occur; for each label the seconds of each
 * summary. Means are rounded to two decimals more than the values have, or to single precision where they have none.
 */
public final class SummaryCodec implements AutoCloseable {
    private static final int KIND = 2;
    private static final int MOST_SUMMARIES = 1 << 16;
    private static final int MOST_ZONES = 64;
    private static final int LEVEL = 6;
    private final Deflater deflater = new Deflater(LEVEL, true);

    /** The bytes of some summaries, ascending by start. */
    public byte[] encode(List<Summary> summaries) {
        ByteSink sink = new ByteSink(summaries.size() * 16 + 32);
        sink.varint(summaries.size());
        long[] starts = summaries.stream()
                .mapToLong(summary -> summary.start().getEpochSecond())
                .toArray();
        Packing.writePace(sink, starts, starts.length, 1);
        summaries.forEach(summary -> sink.varint(summary.count()));
        summaries.forEach(summary -> sink.varint(summary.bad()));
        List<Summary> filled =
                summaries.stream().filter(summary -> summary.count() > 0).toList();
        double[] lowest = filled.stream().mapToDouble(Summary::min).toArray();
        double[] highest = filled.stream().mapToDouble(Summary::max).toArray();
        double[] last = filled.stream().mapToDouble(Summary::last).toArray();
        int digits = Math.max(DoubleColumn.digits(lowest, lowest.length), DoubleColumn.digits(highest, highest.length));
        double[] mean = filled.stream()
                .mapToDouble(summary -> rounded(summary.mean(), digits))
                .toArray();
        for (double[] column : List.of(lowest, highest, mean, last)) {
            DoubleColumn.write(sink, column, column.length);
        }
        filled.forEach(summary -> sink.varint(
                Math.max(0, Duration.between(summary.start(), summary.minAt()).toSeconds())));
        filled.forEach(summary -> sink.varint(
                Math.max(0, Duration.between(summary.start(), summary.maxAt()).toSeconds())));
        TreeSet<String> labels = new TreeSet<>();
        summaries.forEach(summary -> labels.addAll(summary.timeInZone().keySet()));
        sink.varint(labels.size());
        for (String label : labels) {
            sink.text(label);
            summaries.forEach(summary -> sink.varint(Math.round(
                    summary.timeInZone().getOrDefault(label, Duration.ZERO).toMillis() / 1000.0)));
        }
        return Packing.pack(KIND, sink, deflater);
    }

    private static double rounded(double mean, int digits) {
        if (digits < 0) {
            return (float) mean;
        }
        double power = Math.pow(10, digits + 2);
        double rounded = Math.rint(mean * power) / power;
        return Double.isFinite(rounded) ? rounded : mean;
    }

    /**
     * The summaries of a block.
     *
     * @throws IllegalArgumentException if the bytes are no such block: the file is damaged
     */
    public static List<Summary> decode(byte[] bytes) {
        return Packing.unpack("block of summaries", KIND, bytes, source -> {
            int count = source.count(MOST_SUMMARIES);
            long[] starts = Packing.readPace(source, count, 1);
            long[] counts = numbers(source, count);
            long[] bad = numbers(source, count);
            int filled = 0;
            for (long one : counts) {
                filled += one > 0 ? 1 : 0;
            }
            double[] lowest = DoubleColumn.read(source, filled);
            double[] highest = DoubleColumn.read(source, filled);
            double[] mean = DoubleColumn.read(source, filled);
            double[] last = DoubleColumn.read(source, filled);
            long[] lowestAfter = numbers(source, filled);
            long[] highestAfter = numbers(source, filled);
            int labels = source.count(MOST_ZONES);
            List<SortedMap<String, Duration>> zones = new ArrayList<>(count);
            for (int i = 0; i < count; i++) {
                zones.add(new TreeMap<>());
            }
            for (int label = 0; label < labels; label++) {
                String name = source.text();
                for (int i = 0; i < count; i++) {
                    long seconds = source.varint();
                    if (seconds > 0) {
                        zones.get(i).put(name, Duration.ofSeconds(seconds));
                    }
                }
            }
            List<Summary> summaries = new ArrayList<>(count);
            int k = 0;
            for (int i = 0; i < count; i++) {
                Instant start = Instant.ofEpochSecond(starts[i]);
                if (counts[i] > 0) {
                    summaries.add(new Summary(
                            start,
                            counts[i],
                            bad[i],
                            lowest[k],
                            start.plusSeconds(lowestAfter[k]),
                            highest[k],
                            start.plusSeconds(highestAfter[k]),
                            mean[k],
                            last[k],
                            zones.get(i)));
                    k++;
                } else {
                    summaries.add(new Summary(
                            start,
                            0,
                            bad[i],
                            Double.NaN,
                            start,
                            Double.NaN,
                            start,
                            Double.NaN,
                            Double.NaN,
                            zones.get(i)));
                }
            }
            return summaries;
        });
    }

    private static long[] numbers(ByteSource source, int count) {
        long[] numbers = new long[count];
        for (int i = 0; i < count; i++) {
            numbers[i] = source.varint();
        }
        return numbers;
    }

    @Override
    public void close() {
        deflater.end();
    }
}
