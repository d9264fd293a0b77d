package org.openpasture.core.framing;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;
import org.openpasture.core.entity.Ids;

/**
 * Sums by which a frame shows that it arrived whole. The CRCs are told by the parameters of the usual catalogue:
 * polynomial, initial value, whether bits are taken least significant first, what the result is combined with.
 */
public enum Checksum {
    NONE(0, 0, 0, 0, false, 0),
    /** All bytes added. */
    SUM_8(1, 0, 0, 0, false, 0),
    /** All bytes added, and all bits turned: 0xFF minus the sum. */
    SUM_8_INVERTED(1, 0, 0, 0, false, 0xFF),
    /** All bytes added, two's complement: with it the sum is 0. */
    SUM_8_NEGATED(1, 0, 0, 0, false, 0),
    /** All bytes combined by exclusive or. */
    XOR_8(1, 0, 0, 0, false, 0),
    CRC_8(1, 8, 0x07, 0x00, false, 0x00),
    CRC_8_POLYNOMIAL_31(1, 8, 0x31, 0x00, true, 0x00),
    CRC_16_MODBUS(2, 16, 0x8005, 0xFFFF, true, 0x0000),
    CRC_16_ARC(2, 16, 0x8005, 0x0000, true, 0x0000),
    CRC_16_CCITT_FALSE(2, 16, 0x1021, 0xFFFF, false, 0x0000),
    CRC_16_XMODEM(2, 16, 0x1021, 0x0000, false, 0x0000),
    CRC_16_X25(2, 16, 0x1021, 0xFFFF, true, 0xFFFF),
    CRC_32(4, 32, 0x04C11DB7L, 0xFFFFFFFFL, true, 0xFFFFFFFFL);

    private final int bytes;
    private final int width;
    private final long polynomial;
    private final long initial;
    private final boolean reflected;
    private final long finalXor;

    Checksum(int bytes, int width, long polynomial, long initial, boolean reflected, long finalXor) {
        this.bytes = bytes;
        this.width = width;
        this.polynomial = reflected ? Long.reverse(polynomial) >>> (64 - width) : polynomial;
        this.initial = initial;
        this.reflected = reflected;
        this.finalXor = finalXor;
    }

    @JsonCreator
    public static Checksum of(String id) {
        if (id.equals("crc-8-maxim")) {
            // As it was called before, in inlets that are registered.
            return CRC_8_POLYNOMIAL_31;
        }
        return Ids.of(values(), Checksum::id, "checksum", id);
    }

    @JsonValue
    public String id() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** How many bytes it takes. */
    public int bytes() {
        return bytes;
    }

    /** The sum of bytes {@code from} to {@code until}, without the latter. */
    public long over(byte[] data, int from, int until) {
        return switch (this) {
            case NONE -> 0;
            case SUM_8 -> sum(data, from, until);
            case SUM_8_INVERTED -> sum(data, from, until) ^ finalXor;
            case SUM_8_NEGATED -> -sum(data, from, until) & 0xFF;
            case XOR_8 -> xor(data, from, until);
            default -> crc(data, from, until);
        };
    }

    private static long sum(byte[] data, int from, int until) {
        long sum = 0;
        for (int i = from; i < until; i++) {
            sum += data[i] & 0xFF;
        }
        return sum & 0xFF;
    }

    private static long xor(byte[] data, int from, int until) {
        long sum = 0;
        for (int i = from; i < until; i++) {
            sum ^= data[i] & 0xFF;
        }
        return sum;
    }

    private long crc(byte[] data, int from, int until) {
        long crc = initial;
        long top = 1L << (width - 1);
        long mask = top | (top - 1);
        for (int i = from; i < until; i++) {
            crc ^= reflected ? data[i] & 0xFF : (long) (data[i] & 0xFF) << (width - 8);
            for (int bit = 0; bit < 8; bit++) {
                boolean out = reflected ? (crc & 1) != 0 : (crc & top) != 0;
                crc = reflected ? crc >>> 1 : (crc << 1) & mask;
                crc = out ? crc ^ polynomial : crc;
            }
        }
        return (crc ^ finalXor) & mask;
    }
}
