package org.openpasture.core.layout;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.nio.ByteOrder;
import java.util.Locale;
import org.openpasture.core.entity.Ids;

/** The number formats that a layout can read. */
public enum FieldType {
    U8(1),
    I8(1),
    U16(2),
    I16(2),
    U24(3),
    I24(3),
    U32(4),
    I32(4),
    U64(8),
    I64(8),
    F32(4),
    F64(8),
    /** Decimal digits of four bits each, as older meters have them. */
    BCD16(2),
    BCD32(4);

    private final int bytes;

    FieldType(int bytes) {
        this.bytes = bytes;
    }

    @JsonCreator
    public static FieldType of(String id) {
        return Ids.of(values(), FieldType::id, "number format", id);
    }

    @JsonValue
    public String id() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** How many bytes one number takes. */
    public int bytes() {
        return bytes;
    }

    /**
     * The bytes of a number, rounded where the format holds integers.
     *
     * @throws IllegalArgumentException if it does not fit
     */
    public byte[] bytesOf(double number, ByteOrder order) {
        long bits =
                switch (this) {
                    case F32 -> Float.floatToIntBits((float) number);
                    case F64 -> Double.doubleToLongBits(number);
                    case BCD16, BCD32 -> toBcd(Math.round(number));
                    default -> Math.round(number);
                };
        if (this != F32 && this != F64 && read(bits & (-1L >>> (64 - 8 * bytes))) != Math.rint(number)) {
            throw new IllegalArgumentException(number + " does not fit into " + id());
        }
        byte[] result = new byte[bytes];
        for (int i = 0; i < bytes; i++) {
            result[order == ByteOrder.LITTLE_ENDIAN ? i : bytes - 1 - i] = (byte) (bits >> (8 * i));
        }
        return result;
    }

    /** A digit above nine is no number. */
    private static double fromBcd(long bits) {
        double number = 0;
        for (int shift = 28; shift >= 0; shift -= 4) {
            long digit = bits >>> shift & 0xF;
            number = digit > 9 ? Double.NaN : number * 10 + digit;
        }
        return number;
    }

    private static long toBcd(long number) {
        long bits = 0;
        long rest = number;
        for (int shift = 0; shift < 32; shift += 4) {
            bits |= rest % 10 << shift;
            rest /= 10;
        }
        return bits;
    }

    /** The number that the bytes hold, most significant first. */
    double read(long bits) {
        return switch (this) {
            case U8, U16, U24, U32 -> bits;
            case I8 -> (byte) bits;
            case I16 -> (short) bits;
            case I24 -> (int) (bits << 8) >> 8;
            case I32 -> (int) bits;
            case I64 -> bits;
            case U64 -> bits >= 0 ? bits : (bits >>> 1) * 2.0;
            case BCD16, BCD32 -> fromBcd(bits);
            case F32 -> Float.intBitsToFloat((int) bits);
            case F64 -> Double.longBitsToDouble(bits);
        };
    }
}
