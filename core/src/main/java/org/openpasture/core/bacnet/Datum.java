package org.openpasture.core.bacnet;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.Optional;
import java.util.OptionalDouble;

/** One value with an application tag (ASHRAE 135, 20.2). */
public sealed interface Datum {
    /** Written to give a priority free again; read where there is no value. */
    record Nothing() implements Datum {}

    record Truth(boolean value) implements Datum {}

    /** An unsigned integer of up to 63 bits. */
    record Unsigned(long value) implements Datum {}

    record Signed(long value) implements Datum {}

    /** A number of 32 bits. */
    record Real(float value) implements Datum {}

    /** A number of 64 bits. */
    record Wide(double value) implements Datum {}

    record Octets(byte[] value) implements Datum {}

    record Text(String value) implements Datum {}

    /**
     * Bits, the first of which is the most significant one of the first byte.
     *
     * @param count how many of the bytes' bits are used
     */
    record Bits(byte[] bytes, int count) implements Datum {
        /** Whether a bit is there and set. */
        public boolean has(int index) {
            return index < count && (bytes[index / 8] & 0x80 >> index % 8) != 0;
        }
    }

    record Choice(long value) implements Datum {}

    /** @param value empty where a part of it is left open */
    record Date(Optional<LocalDate> value) implements Datum {}

    /** @param value empty where a part of it is left open */
    record Time(Optional<LocalTime> value) implements Datum {}

    record Reference(ObjectId value) implements Datum {}

    /** What it is as a number: on is 1 and off is 0; empty for what is none. */
    default OptionalDouble number() {
        return switch (this) {
            case Truth(boolean value) -> OptionalDouble.of(value ? 1 : 0);
            case Unsigned(long value) -> OptionalDouble.of(value);
            case Signed(long value) -> OptionalDouble.of(value);
            case Real(float value) ->
                OptionalDouble.of(Float.isFinite(value) ? Double.parseDouble(Float.toString(value)) : value);
            case Wide(double value) -> OptionalDouble.of(value);
            case Choice(long value) -> OptionalDouble.of(value);
            case Nothing n -> OptionalDouble.empty();
            case Octets o -> OptionalDouble.empty();
            case Text t -> OptionalDouble.empty();
            case Bits b -> OptionalDouble.empty();
            case Date d -> OptionalDouble.empty();
            case Time t -> OptionalDouble.empty();
            case Reference r -> OptionalDouble.empty();
        };
    }
}
