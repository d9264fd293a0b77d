package org.openpasture.core.layout;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import java.nio.ByteOrder;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.bytes.Bytes;
import org.openpasture.core.quantity.Decimals;

/**
 * Where in the tables of a fieldbus device one channel lies and how its words make a number: {@code number * scale +
 * offset}.
 *
 * @param table null for holding
 * @param at the first register or bit, counted from 0 as in the protocol, not as in lists that begin at 40001
 * @param type of at least 16 bits; null for u16, and for single bits
 * @param words "high-first" (as the standard has it) or "low-first"; null for high-first
 * @param order of the two bytes of a word, "big" or "little"; null for big
 * @param bits a part of the number; null for all of it
 * @param scale null for 1
 * @param offset null for 0
 * @param missing the raw number by which the device says "no value"; null if it never does
 * @param every seconds between two rounds of this field; null for the device's own period
 * @param write whether people may set it from here; null for no
 */
@JsonIgnoreProperties({"settable"})
public record RegisterField(
        String channel,
        @Nullable RegisterTable table,
        int at,
        @Nullable FieldType type,
        @Nullable String words,
        @Nullable String order,
        Field.@Nullable Bits bits,
        @Nullable Double scale,
        @Nullable Double offset,
        @Nullable Double missing,
        @Nullable Integer every,
        @Nullable Boolean write)
        implements AskedField {
    private static final int HIGHEST = 65_535;

    public RegisterField {
        if (at < 0 || at > HIGHEST) {
            throw new IllegalArgumentException(
                    "field '" + channel + "': registers are 0 to " + HIGHEST + ", not " + at);
        }
        if (type != null && type.bytes() % 2 != 0) {
            throw new IllegalArgumentException(
                    "field '" + channel + "': a register has 16 bits, so that " + type.id() + " is no type for it");
        }
        if (words != null && !words.equals("high-first") && !words.equals("low-first")) {
            throw new IllegalArgumentException(
                    "field '" + channel + "': words are high-first or low-first, not '" + words + "'");
        }
        Bytes.requireOrder("field '" + channel + "'", order);
        AskedLayout.requirePeriod(channel, every);
        if (Boolean.TRUE.equals(write)
                && table != null
                && table != RegisterTable.HOLDING
                && table != RegisterTable.COIL) {
            throw new IllegalArgumentException(
                    "field '" + channel + "': only holding registers and coils can be set, not " + table.id());
        }
    }

    /** A number of a holding register as it stands there. */
    public static RegisterField of(String channel, int at, FieldType type) {
        return new RegisterField(channel, null, at, type, null, null, null, null, null, null, null, null);
    }

    RegisterTable tableOrHolding() {
        return table == null ? RegisterTable.HOLDING : table;
    }

    /** How many bits or registers it takes. */
    int count() {
        return tableOrHolding().isBits() || type == null ? 1 : type.bytes() / 2;
    }

    /** Where it lies, for people: "holding 4" or "holding 4 to 5". */
    String where() {
        return tableOrHolding().id() + " " + at + (count() > 1 ? " to " + (at + count() - 1) : "");
    }

    /**
     * What gives it a value.
     *
     * @throws IllegalArgumentException if it cannot be set, or not to this
     */
    RegisterLayout.Write write(double value) {
        if (tableOrHolding().isBits()) {
            return new RegisterLayout.Write.All(tableOrHolding(), at, new byte[] {(byte) (value == 0 ? 0 : 1)});
        }
        double raw = Decimals.unscaled(value, scale, offset);
        if (bits != null) {
            return part(bits, Math.rint(raw));
        }
        FieldType of = type == null ? FieldType.U16 : type;
        // To the nearest number that it can hold; a hundredth of a step off is arithmetic, not a wish.
        byte[] data = inOrder(
                of.bytesOf(of == FieldType.F32 || of == FieldType.F64 ? raw : Math.rint(raw), ByteOrder.BIG_ENDIAN));
        return new RegisterLayout.Write.All(RegisterTable.HOLDING, at, data);
    }

    private RegisterLayout.Write part(Field.Bits part, double raw) {
        if (count() > 1) {
            throw new IllegalArgumentException("'" + channel + "' is a part of a number over " + count()
                    + " registers and cannot be set by itself");
        }
        if (part.from() + part.count() > 16) {
            throw new IllegalArgumentException("'" + channel + "' has bits that its register has not");
        }
        if (!(raw >= 0 && raw < 1L << part.count())) {
            throw new IllegalArgumentException(
                    raw + " does not fit into " + part.count() + (part.count() == 1 ? " bit" : " bits"));
        }
        int mask = (int) ((1L << part.count()) - 1) << part.from();
        return new RegisterLayout.Write.Part(at, ordered(~mask & 0xFFFF), ordered((int) raw << part.from()));
    }

    /** A register's number in the order of its bytes. */
    private int ordered(int word) {
        return Bytes.order(order) == ByteOrder.LITTLE_ENDIAN ? Short.reverseBytes((short) word) & 0xFFFF : word;
    }

    /** The field over the bytes of its registers, brought into the order of the standard. */
    Field overBytes() {
        return new Field(channel, 0, type == null ? FieldType.U16 : type, null, bits, scale, offset, missing);
    }

    /** Its bytes in the order of the standard, most significant first. */
    byte[] inOrder(byte[] raw) {
        byte[] bytes = raw.clone();
        int last = bytes.length / 2 - 1;
        for (int word = 0; word <= last; word++) {
            int from = "low-first".equals(words) ? last - word : word;
            boolean swapped = Bytes.order(order) == ByteOrder.LITTLE_ENDIAN;
            bytes[2 * word] = raw[2 * from + (swapped ? 1 : 0)];
            bytes[2 * word + 1] = raw[2 * from + (swapped ? 0 : 1)];
        }
        return bytes;
    }
}
