package org.openpasture.core.series;

import java.util.Arrays;
import org.openpasture.core.quantity.Decimals;

/**
 * A column of values in few bytes and without loss. Three ways, the first that fits is taken:
 *
 * <ul>
 *   <li>0 to {@value Decimals#MOST_DIGITS}: decimals. Every value is an integer divided by that power of ten; kept are
 *       the differences of the integers. What sensors and people write.
 *   <li>{@value #DICTIONARY}: few distinct values, kept once in ascending order, and the differences of the places in
 *       that list. A converter's steps after a calibration with odd factors.
 *   <li>{@value #BITS}: the IEEE 754 bits, each xor the one before, all highest bytes first, then all next ones.
 * </ul>
 */
final class DoubleColumn {
    private static final int DICTIONARY = 16;
    private static final int BITS = 17;

    private DoubleColumn() {}

    static void write(ByteSink sink, double[] values, int count) {
        int digits = digits(values, count);
        if (digits >= 0) {
            sink.u8(digits);
            double power = Decimals.power(digits);
            long before = 0;
            for (int i = 0; i < count; i++) {
                long scaled = (long) Math.rint(values[i] * power);
                sink.zigzag(scaled - before);
                before = scaled;
            }
            return;
        }
        double[] distinct = distinct(values, count);
        if (distinct.length <= count / 3) {
            sink.u8(DICTIONARY);
            sink.varint(distinct.length);
            writeBits(sink, distinct, distinct.length);
            int before = 0;
            for (int i = 0; i < count; i++) {
                int place = Arrays.binarySearch(distinct, values[i]);
                sink.zigzag(place - before);
                before = place;
            }
        } else {
            sink.u8(BITS);
            writeBits(sink, values, count);
        }
    }

    static double[] read(ByteSource source, int count) {
        int way = source.u8();
        double[] values = new double[count];
        if (way <= Decimals.MOST_DIGITS) {
            long scaled = 0;
            double power = Decimals.power(way);
            for (int i = 0; i < count; i++) {
                scaled += source.zigzag();
                values[i] = scaled / power;
            }
        } else if (way == DICTIONARY) {
            double[] distinct = readBits(source, source.count(count));
            long place = 0;
            for (int i = 0; i < count; i++) {
                place += source.zigzag();
                if (place < 0 || place >= distinct.length) {
                    throw new IllegalArgumentException("it names a value that it does not hold");
                }
                values[i] = distinct[(int) place];
            }
        } else if (way == BITS) {
            return readBits(source, count);
        } else {
            throw new IllegalArgumentException("it keeps values in an unknown way, " + way);
        }
        return values;
    }

    /**
     * The least number of decimals with which every value is exact, or -1. A value exact with n is exact with n + 1.
     */
    static int digits(double[] values, int count) {
        int digits = 0;
        double largest = 0;
        for (int i = 0; i < count; i++) {
            digits = isMinusZero(values[i]) ? -1 : Decimals.digits(values[i], digits);
            if (digits < 0) {
                return -1;
            }
            largest = Math.max(largest, Math.abs(values[i]));
        }
        return largest * Decimals.power(digits) < Decimals.EXACT ? digits : -1;
    }

    private static boolean isMinusZero(double value) {
        return value == 0 && Double.doubleToRawLongBits(value) != 0;
    }

    private static double[] distinct(double[] values, int count) {
        double[] sorted = Arrays.copyOf(values, count);
        Arrays.sort(sorted);
        int kept = 0;
        for (int i = 0; i < count; i++) {
            if (i == 0 || Double.compare(sorted[i], sorted[kept - 1]) != 0) {
                sorted[kept++] = sorted[i];
            }
        }
        return Arrays.copyOf(sorted, kept);
    }

    private static void writeBits(ByteSink sink, double[] values, int count) {
        for (int shift = 56; shift >= 0; shift -= 8) {
            long before = 0;
            for (int i = 0; i < count; i++) {
                long bits = Double.doubleToRawLongBits(values[i]);
                sink.u8((int) ((bits ^ before) >>> shift));
                before = bits;
            }
        }
    }

    private static double[] readBits(ByteSource source, int count) {
        long[] bits = new long[count];
        for (int shift = 56; shift >= 0; shift -= 8) {
            for (int i = 0; i < count; i++) {
                bits[i] |= (long) source.u8() << shift;
            }
        }
        double[] values = new double[count];
        long before = 0;
        for (int i = 0; i < count; i++) {
            before ^= bits[i];
            values[i] = Double.longBitsToDouble(before);
        }
        return values;
    }
}
