package org.openpasture.core.series;

import java.util.zip.Deflater;

/**
 * A chunk: some hundred readings of one point, packed for the disk.
 *
 * <p>Body, before {@link Packing}: count; unit of time in ms (1 or 1000), first time and then differences of
 * differences of times in that unit; values as a {@link DoubleColumn}; runs of quality as code and length. An encoder
 * holds a compressor outside of the heap, so it is to be closed; it is for one thread.
 */
public final class ChunkCodec implements AutoCloseable {
    private static final int KIND = 1;
    /** No chunk is ever larger; a longer claim is damage. */
    private static final int MOST_READINGS = 1 << 20;

    private static final int LEVEL = 4;
    private final Deflater deflater = new Deflater(LEVEL, true);

    /** The bytes of a slice with at least one reading. */
    public byte[] encode(SeriesSlice slice) {
        int count = slice.size();
        if (count < 1 || count > MOST_READINGS) {
            throw new IllegalArgumentException("a chunk cannot hold " + count + " readings");
        }
        ByteSink sink = new ByteSink(count * 4 + 32);
        sink.varint(count);
        long unit = Packing.commonUnit(slice.times(), count);
        sink.varint(unit);
        Packing.writePace(sink, slice.times(), count, unit);
        DoubleColumn.write(sink, slice.values(), count);
        byte[] qualities = slice.qualities();
        for (int i = 0; i < count; ) {
            int run = i;
            while (run < count && qualities[run] == qualities[i]) {
                run++;
            }
            sink.u8(qualities[i]);
            sink.varint(run - i);
            i = run;
        }
        return Packing.pack(KIND, sink, deflater);
    }

    /**
     * The readings of a chunk.
     *
     * @throws IllegalArgumentException if the bytes are no chunk: the file is damaged
     */
    public static SeriesSlice decode(byte[] bytes) {
        return Packing.unpack("chunk of readings", KIND, bytes, source -> {
            int count = source.count(MOST_READINGS);
            long unit = source.varint();
            long[] times = Packing.readPace(source, count, unit);
            for (int i = 1; i < count; i++) {
                if (times[i] <= times[i - 1]) {
                    throw new IllegalArgumentException("its times do not ascend");
                }
            }
            double[] values = DoubleColumn.read(source, count);
            byte[] qualities = new byte[count];
            for (int i = 0; i < count; ) {
                byte quality = (byte) source.u8();
                int run = source.count(count - i);
                if (run == 0) {
                    throw new IllegalArgumentException("a run of qualities is empty");
                }
                java.util.Arrays.fill(qualities, i, i + run, quality);
                i += run;
            }
            return new SeriesSlice(times, values, qualities);
        });
    }

    @Override
    public void close() {
        deflater.end();
    }
}
