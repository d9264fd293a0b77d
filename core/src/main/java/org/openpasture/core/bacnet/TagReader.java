package org.openpasture.core.bacnet;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.openpasture.core.bytes.Bytes;

/** Reads tagged values (ASHRAE 135, 20.2.1). Whatever is malformed is an {@link IllegalArgumentException}. */
final class TagReader {
    private static final int DEEPEST = 8;
    private final byte[] bytes;
    private final int end;
    private int at;

    TagReader(byte[] bytes, int from) {
        this.bytes = bytes;
        this.end = bytes.length;
        this.at = from;
    }

    boolean hasMore() {
        return at < end;
    }

    private int u8() {
        if (at >= end) {
            throw new IllegalArgumentException("it ends in the middle of a value");
        }
        return bytes[at++] & 0xFF;
    }

    private int peek() {
        if (at >= end) {
            throw new IllegalArgumentException("it ends where a value is expected");
        }
        return bytes[at] & 0xFF;
    }

    boolean isContext(int number) {
        return hasMore() && (peek() & 0x08) != 0 && (peek() & 0x07) < 6 && peek() >> 4 == number;
    }

    boolean isOpening(int number) {
        return hasMore() && peek() == (number << 4 | 0x0E);
    }

    boolean isClosing(int number) {
        return hasMore() && peek() == (number << 4 | 0x0F);
    }

    void open(int number) {
        expect(number << 4 | 0x0E);
    }

    void close(int number) {
        expect(number << 4 | 0x0F);
    }

    private void expect(int tag) {
        int found = u8();
        if (found != tag) {
            throw new IllegalArgumentException(String.format("tag %02x is expected, not %02x", tag, found));
        }
    }

    private byte[] content(int lengthBits) {
        int length = lengthBits;
        if (length == 5) {
            length = u8();
            if (length == 254) {
                length = u8() << 8 | u8();
            } else if (length == 255) {
                throw new IllegalArgumentException("a value is longer than a packet can be");
            }
        }
        if (length > end - at) {
            throw new IllegalArgumentException("a value is longer than what follows");
        }
        byte[] content = new byte[length];
        System.arraycopy(bytes, at, content, 0, length);
        at += length;
        return content;
    }

    private byte[] context(int number) {
        int tag = u8();
        if (tag >> 4 != number || (tag & 0x08) == 0 || (tag & 0x07) > 5) {
            throw new IllegalArgumentException(String.format("context tag %d is expected, not %02x", number, tag));
        }
        return content(tag & 0x07);
    }

    long unsigned(int contextNumber) {
        return whole(context(contextNumber), false);
    }

    ObjectId object(int contextNumber) {
        return object(context(contextNumber));
    }

    float real(int contextNumber) {
        byte[] content = context(contextNumber);
        return sized(content, 4).getFloat();
    }

    long signed(int contextNumber) {
        return whole(context(contextNumber), true);
    }

    Datum.Bits bits(int contextNumber) {
        return bits(context(contextNumber));
    }

    /** Passes over a value that may stand here and whose meaning is not asked for; says whether it did. */
    boolean skip(int contextNumber) {
        boolean there = isContext(contextNumber);
        if (there) {
            context(contextNumber);
        }
        return there;
    }

    /** Passes over which property of which object follows, perhaps which entry of it. */
    void skipReference() {
        object(0);
        unsigned(1);
        skip(2);
    }

    /**
     * All values up to a closing tag, which is consumed; what is built of several in them, such as a list of lists, is
     * passed over.
     */
    List<Datum> dataUntilClosing(int number) {
        List<Datum> data = new ArrayList<>();
        while (!isClosing(number)) {
            int tag = peek();
            if ((tag & 0x08) == 0) {
                data.add(datum());
            } else {
                pass(0);
            }
        }
        close(number);
        return data;
    }

    /** Passes over one value, or over all from an opening tag to its closing one. */
    private void pass(int depth) {
        int tag = u8();
        boolean isApplicationTruth = (tag & 0xF8) == 0x10;
        if (tag >> 4 == 15) {
            throw new IllegalArgumentException("no service that is used here has tags beyond 14");
        }
        if ((tag & 0x0F) == 0x0E) {
            if (depth == DEEPEST) {
                throw new IllegalArgumentException("it is nested too deeply");
            }
            while (!isClosing(tag >> 4)) {
                pass(depth + 1);
            }
            close(tag >> 4);
        } else if ((tag & 0x0F) == 0x0F) {
            throw new IllegalArgumentException("a list ends that did not begin");
        } else if (!isApplicationTruth) {
            content(tag & 0x07);
        }
    }

    /** The next value with an application tag. */
    Datum datum() {
        int tag = u8();
        if ((tag & 0x08) != 0) {
            throw new IllegalArgumentException(String.format("an application tag is expected, not %02x", tag));
        }
        int number = tag >> 4;
        if (number == 1) {
            return new Datum.Truth((tag & 0x07) == 1);
        }
        byte[] content = content(tag & 0x07);
        return switch (number) {
            case 0 -> new Datum.Nothing();
            case 2 -> new Datum.Unsigned(whole(content, false));
            case 3 -> new Datum.Signed(whole(content, true));
            case 4 -> new Datum.Real(sized(content, 4).getFloat());
            case 5 -> new Datum.Wide(sized(content, 8).getDouble());
            case 6 -> new Datum.Octets(content);
            case 7 -> text(content);
            case 8 -> bits(content);
            case 9 -> new Datum.Choice(whole(content, false));
            case 10 -> date(content);
            case 11 -> time(content);
            case 12 -> new Datum.Reference(object(content));
            default -> throw new IllegalArgumentException("there is no application tag " + number);
        };
    }

    private static ByteBuffer sized(byte[] content, int length) {
        if (content.length != length) {
            throw new IllegalArgumentException("a value of " + length + " bytes is expected, not of " + content.length);
        }
        return ByteBuffer.wrap(content);
    }

    private static ObjectId object(byte[] content) {
        return ObjectId.ofBits(sized(content, 4).getInt());
    }

    private static long whole(byte[] content, boolean signed) {
        if (content.length == 0 || content.length > 8) {
            throw new IllegalArgumentException("an integer has 1 to 8 bytes, not " + content.length);
        }
        long value = Bytes.number(content, 0, content.length, ByteOrder.BIG_ENDIAN);
        if (signed) {
            int unused = Long.SIZE - Byte.SIZE * content.length;
            value = value << unused >> unused;
        }
        if (!signed && value < 0) {
            throw new IllegalArgumentException("an integer is too large");
        }
        return value;
    }

    private static Datum.Bits bits(byte[] content) {
        if (content.length == 0 || content[0] < 0 || content[0] > 7 || content.length == 1 && content[0] != 0) {
            throw new IllegalArgumentException("bits do not say how many they are");
        }
        byte[] rest = new byte[content.length - 1];
        System.arraycopy(content, 1, rest, 0, rest.length);
        return new Datum.Bits(rest, rest.length * 8 - content[0]);
    }

    /** Character sets by 20.2.9: 0 is UTF-8, 4 is UCS-2, 5 is ISO 8859-1. */
    private static Datum text(byte[] content) {
        if (content.length == 0) {
            throw new IllegalArgumentException("a text does not say its character set");
        }
        Charset charset =
                switch (content[0]) {
                    case 4 -> StandardCharsets.UTF_16BE;
                    case 5 -> StandardCharsets.ISO_8859_1;
                    default -> StandardCharsets.UTF_8;
                };
        return new Datum.Text(new String(content, 1, content.length - 1, charset));
    }

    private static Datum date(byte[] content) {
        ByteBuffer in = sized(content, 4);
        int year = in.get() & 0xFF;
        int month = in.get() & 0xFF;
        int day = in.get() & 0xFF;
        try {
            return new Datum.Date(
                    year == 255 || month > 12 || day > 31
                            ? Optional.empty()
                            : Optional.of(LocalDate.of(1900 + year, month, day)));
        } catch (DateTimeException e) {
            return new Datum.Date(Optional.empty());
        }
    }

    private static Datum time(byte[] content) {
        ByteBuffer in = sized(content, 4);
        int hour = in.get() & 0xFF;
        int minute = in.get() & 0xFF;
        int second = in.get() & 0xFF;
        int hundredths = in.get() & 0xFF;
        boolean open = hour > 23 || minute > 59 || second > 59;
        return new Datum.Time(
                open
                        ? Optional.empty()
                        : Optional.of(
                                LocalTime.of(hour, minute, second, hundredths > 99 ? 0 : hundredths * 10_000_000)));
    }
}
