package org.openpasture.core.framing;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.bytes.Bytes;

/** How frames follow one another in a stream of bytes, told as data. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Framing.Whole.class, name = "whole"),
    @JsonSubTypes.Type(value = Framing.Lines.class, name = "lines"),
    @JsonSubTypes.Type(value = Framing.Framed.class, name = "framed")
})
public sealed interface Framing {
    /** No frame is longer. */
    int LONGEST = 65_536;

    /** A splitter at the beginning of a stream. */
    Splitter splitter();

    /** What a message holds that is not part of a stream: nothing of it goes on in another. */
    default List<Splitter.Piece> cut(byte[] message) {
        Splitter splitter = splitter();
        List<Splitter.Piece> pieces = new ArrayList<>(splitter.feed(message));
        pieces.addAll(splitter.end());
        return pieces;
    }

    /** Each message of the transport is one frame: a datagram, a post, a publication. */
    record Whole() implements Framing {
        @Override
        public Splitter splitter() {
            return new Splitter.OfWhole();
        }
    }

    /**
     * Lines of text, ended by CR, LF, both, or a character of their own.
     *
     * @param end the character that ends a line; null for CR and LF
     * @param checked whether each line ends with {@code *hh}, the exclusive or of all characters between {@code $} or
     *     {@code !} and the star in hex digits, as IEC 61162-1 has it; null for no
     */
    record Lines(@Nullable String end, @Nullable Boolean checked) implements Framing {
        public Lines {
            if (end != null && (end.length() != 1 || end.charAt(0) > 0x7E)) {
                throw new IllegalArgumentException("a line ends with one character, not '" + end + "'");
            }
        }

        @Override
        public Splitter splitter() {
            return new LineSplitter(this);
        }
    }

    /**
     * Frames of bytes: a fixed beginning, then a length in it or always the same, and a checksum at the end.
     *
     * @param start hex digits of the beginning, 1 to 8 bytes
     * @param length bytes of the whole frame; null where a field tells it
     * @param lengthAt the byte of the length field, counted from the beginning; null where all frames have the same
     * @param lengthBytes 1 or 2; null for 1
     * @param lengthOrder "big" or "little"; null for big
     * @param lengthAdds what the whole frame has more than the length field says; null for 0
     * @param checksum null for none
     * @param checksumOrder "big" or "little"; null for big
     * @param checksumFrom the first byte that it counts; null for 0
     * @param end hex digits after the checksum; null for none
     * @param payloadFrom the first byte of what is inside; null for what follows the length field, or the beginning
     */
    record Framed(
            String start,
            @Nullable Integer length,
            @Nullable Integer lengthAt,
            @Nullable Integer lengthBytes,
            @Nullable String lengthOrder,
            @Nullable Integer lengthAdds,
            @Nullable Checksum checksum,
            @Nullable String checksumOrder,
            @Nullable Integer checksumFrom,
            @Nullable String end,
            @Nullable Integer payloadFrom)
            implements Framing {
        private static final int MOST_START = 8;

        public Framed {
            int starts = HexFormat.of().parseHex(start).length;
            if (starts < 1 || starts > MOST_START) {
                throw new IllegalArgumentException(
                        "a frame begins with 1 to " + MOST_START + " fixed bytes, not " + starts);
            }
            if ((length == null) == (lengthAt == null)) {
                throw new IllegalArgumentException(
                        "either all frames have the same length, or a byte of each tells it (lengthAt)");
            }
            if (length != null && (length <= starts || length > LONGEST)) {
                throw new IllegalArgumentException(
                        "a frame is longer than its beginning and has " + LONGEST + " bytes at most, not " + length);
            }
            if (lengthAt != null && (lengthAt < 0 || lengthAt > 64)) {
                throw new IllegalArgumentException("the length stands in one of the first 64 bytes");
            }
            if (lengthBytes != null && lengthBytes != 1 && lengthBytes != 2) {
                throw new IllegalArgumentException("the length has 1 or 2 bytes, not " + lengthBytes);
            }
            for (String order : new @Nullable String[] {lengthOrder, checksumOrder}) {
                Bytes.requireOrder("", order);
            }
            if (checksumFrom != null && checksumFrom < 0 || payloadFrom != null && payloadFrom < 0) {
                throw new IllegalArgumentException("bytes are counted from 0");
            }
            HexFormat.of().parseHex(end == null ? "" : end);
        }

        @Override
        public Splitter splitter() {
            return new FrameSplitter(this);
        }
    }
}
