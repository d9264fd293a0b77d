package org.openpasture.core.series;

import java.util.function.Function;
import java.util.zip.DataFormatException;
import java.util.zip.Deflater;
import java.util.zip.Inflater;

/**
 * The outside of all packed series: a first byte with the version in its low and the kind in its high four bits, then
 * the body, deflated (RFC 1951) where that is shorter. Body of version 1: as it is; of version 2: its length as a
 * variable-length integer, then deflated.
 */
final class Packing {
    private static final int PLAIN = 1;
    private static final int DEFLATED = 2;
    /** Far above what a chunk or a block of summaries can take; a larger claim is damage. */
    private static final int MOST_BYTES = 16 << 20;

    private static final int WORTH_DEFLATING = 48;

    private Packing() {}

    static byte[] pack(int kind, ByteSink body, Deflater deflater) {
        if (body.size() >= WORTH_DEFLATING) {
            ByteSink out = new ByteSink(body.size());
            out.u8(kind << 4 | DEFLATED);
            out.varint(body.size());
            byte[] room = new byte[body.size()];
            deflater.reset();
            deflater.setInput(body.array(), 0, body.size());
            deflater.finish();
            int length = deflater.deflate(room);
            if (deflater.finished() && out.size() + length < body.size()) {
                out.raw(room, length);
                return out.toBytes();
            }
        }
        ByteSink out = new ByteSink(body.size() + 1);
        out.u8(kind << 4 | PLAIN);
        out.raw(body.array(), body.size());
        return out.toBytes();
    }

    /** Reads a body; whatever is wrong with it is an {@link IllegalArgumentException} that begins with {@code what}. */
    static <T> T unpack(String what, int kind, byte[] bytes, Function<ByteSource, T> read) {
        try {
            ByteSource outside = new ByteSource(bytes, 0, bytes.length);
            int first = outside.u8();
            if (first >> 4 != kind) {
                throw new IllegalArgumentException("it is of another kind, " + (first >> 4));
            }
            ByteSource body =
                    switch (first & 0x0f) {
                        case PLAIN -> new ByteSource(bytes, 1, bytes.length);
                        case DEFLATED -> inflate(bytes, outside.count(MOST_BYTES));
                        default -> throw new IllegalArgumentException("it is of an unknown version, " + (first & 0x0f));
                    };
            T value = read.apply(body);
            if (!body.isAtEnd()) {
                throw new IllegalArgumentException("it is longer than it says");
            }
            return value;
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("a " + what + " on the disk is damaged: " + e.getMessage(), e);
        }
    }

    private static ByteSource inflate(byte[] bytes, int length) {
        int start = 2;
        while (start < bytes.length && bytes[start - 1] < 0) {
            start++;
        }
        Inflater inflater = new Inflater(true);
        try {
            inflater.setInput(bytes, start, bytes.length - start);
            byte[] body = new byte[length];
            int got = inflater.inflate(body);
            if (got != length) {
                throw new IllegalArgumentException("it is cut off");
            }
            return new ByteSource(body, 0, length);
        } catch (DataFormatException e) {
            throw new IllegalArgumentException("its compressed bytes make no sense", e);
        } finally {
            inflater.end();
        }
    }

    /** The differences between ascending numbers, then the differences of these: zeros where the pace is even. */
    static void writePace(ByteSink sink, long[] ascending, int count, long unit) {
        long before = 0;
        long stepBefore = 0;
        for (int i = 0; i < count; i++) {
            long step = ascending[i] / unit - before;
            sink.zigzag(i < 1 ? step : step - stepBefore);
            stepBefore = i < 1 ? 0 : step;
            before = ascending[i] / unit;
        }
    }

    static long[] readPace(ByteSource source, int count, long unit) {
        long[] ascending = new long[count];
        long before = 0;
        long step = 0;
        for (int i = 0; i < count; i++) {
            long read = source.zigzag();
            long next = i < 1 ? read : before + step + read;
            step = i < 1 ? 0 : next - before;
            before = next;
            ascending[i] = next * unit;
        }
        return ascending;
    }

    static long commonUnit(long[] times, int count) {
        for (int i = 0; i < count; i++) {
            if (times[i] % 1000 != 0) {
                return 1;
            }
        }
        return 1000;
    }
}
