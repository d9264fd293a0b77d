package org.openpasture.core.bacnet;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;

/** Writes tagged values (ASHRAE 135, 20.2.1). */
final class TagWriter {
    private static final int CONTEXT = 0x08;
    private static final int OPENING = 0x0E;
    private static final int CLOSING = 0x0F;
    private final ByteArrayOutputStream out = new ByteArrayOutputStream();

    byte[] bytes() {
        return out.toByteArray();
    }

    private TagWriter tag(int number, int classAndLength, byte[] content) {
        int length = content.length;
        out.write(number << 4 | classAndLength | Math.min(length, 5));
        if (length > 253) {
            out.write(254);
            out.write(length >> 8);
            out.write(length);
        } else if (length > 4) {
            out.write(length);
        }
        out.writeBytes(content);
        return this;
    }

    TagWriter unsigned(int context, long value) {
        return tag(context, CONTEXT, whole(value, false));
    }

    TagWriter object(int context, ObjectId id) {
        return tag(context, CONTEXT, ByteBuffer.allocate(4).putInt(id.bits()).array());
    }

    TagWriter truth(int context, boolean value) {
        return tag(context, CONTEXT, new byte[] {(byte) (value ? 1 : 0)});
    }

    TagWriter open(int context) {
        out.write(context << 4 | OPENING);
        return this;
    }

    TagWriter close(int context) {
        out.write(context << 4 | CLOSING);
        return this;
    }

    TagWriter datum(Datum datum) {
        switch (datum) {
            case Datum.Nothing nothing -> out.write(0x00);
            case Datum.Truth(boolean value) -> out.write(value ? 0x11 : 0x10);
            case Datum.Unsigned(long value) -> tag(2, 0, whole(value, false));
            case Datum.Signed(long value) -> tag(3, 0, whole(value, true));
            case Datum.Real(float value) ->
                tag(4, 0, ByteBuffer.allocate(4).putFloat(value).array());
            case Datum.Wide(double value) ->
                tag(5, 0, ByteBuffer.allocate(8).putDouble(value).array());
            case Datum.Octets(byte[] value) -> tag(6, 0, value);
            case Datum.Text(String value) -> {
                byte[] text = value.getBytes(StandardCharsets.UTF_8);
                tag(
                        7,
                        0,
                        ByteBuffer.allocate(text.length + 1)
                                .put((byte) 0)
                                .put(text)
                                .array());
            }
            case Datum.Bits(byte[] bytes, int count) ->
                tag(
                        8,
                        0,
                        ByteBuffer.allocate(bytes.length + 1)
                                .put((byte) (bytes.length * 8 - count))
                                .put(bytes)
                                .array());
            case Datum.Choice(long value) -> tag(9, 0, whole(value, false));
            case Datum.Date(var value) ->
                tag(
                        10,
                        0,
                        value.map(date -> new byte[] {
                                    (byte) (date.getYear() - 1900),
                                    (byte) date.getMonthValue(),
                                    (byte) date.getDayOfMonth(),
                                    (byte) date.getDayOfWeek().getValue()
                                })
                                .orElseGet(TagWriter::leftOpen));
            case Datum.Time(var value) ->
                tag(
                        11,
                        0,
                        value.map(time -> new byte[] {
                                    (byte) time.getHour(),
                                    (byte) time.getMinute(),
                                    (byte) time.getSecond(),
                                    (byte) (time.getNano() / 10_000_000)
                                })
                                .orElseGet(TagWriter::leftOpen));
            case Datum.Reference(ObjectId value) ->
                tag(12, 0, ByteBuffer.allocate(4).putInt(value.bits()).array());
        }
        return this;
    }

    private static byte[] leftOpen() {
        return new byte[] {-1, -1, -1, -1};
    }

    /** As few bytes as hold it, one at least. */
    private static byte[] whole(long value, boolean signed) {
        int count = 1;
        while (count < 8
                && (signed
                        ? value >> (8 * count - 1) != 0 && value >> (8 * count - 1) != -1
                        : value >>> (8 * count) != 0)) {
            count++;
        }
        byte[] bytes = new byte[count];
        for (int i = 0; i < count; i++) {
            bytes[i] = (byte) (value >> 8 * (count - 1 - i));
        }
        return bytes;
    }
}
