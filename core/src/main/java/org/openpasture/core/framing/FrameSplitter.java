package org.openpasture.core.framing;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.openpasture.core.bytes.Bytes;

/**
 * Cuts a stream of bytes into frames. After a frame whose length or checksum is wrong it looks for the next beginning
 * from the byte after the wrong one's, so that a false beginning inside a frame costs that frame only.
 */
final class FrameSplitter implements Splitter {
    private static final int MOST_SHOWN = 64;
    private final Framing.Framed framing;
    private final byte[] start;
    private final byte[] end;
    private final Checksum checksum;
    private byte[] buffer = new byte[0];

    FrameSplitter(Framing.Framed framing) {
        this.framing = framing;
        this.start = HexFormat.of().parseHex(framing.start());
        this.end = HexFormat.of().parseHex(framing.end() == null ? "" : framing.end());
        this.checksum = framing.checksum() == null ? Checksum.NONE : framing.checksum();
    }

    @Override
    public List<Piece> feed(byte[] bytes) {
        byte[] all = Arrays.copyOf(buffer, buffer.length + bytes.length);
        System.arraycopy(bytes, 0, all, buffer.length, bytes.length);
        List<Piece> pieces = new ArrayList<>();
        int at = 0;
        int lostFrom = 0;
        while (at < all.length) {
            int begin = nextStart(all, at);
            if (begin + start.length > all.length) {
                at = begin;
                break;
            }
            Optional<Integer> length = length(all, begin);
            if (length.isEmpty()) {
                at = begin;
                break;
            }
            Optional<String> wrong =
                    length.get() > all.length - begin ? wrongLength(length.get()) : wrong(all, begin, length.get());
            if (wrong.isEmpty() && length.get() > all.length - begin) {
                at = begin;
                break;
            }
            if (wrong.isPresent()) {
                int next = nextStart(all, begin + 1);
                lose(all, lostFrom, next, wrong.get(), pieces);
                lostFrom = next;
                at = next;
                continue;
            }
            lose(all, lostFrom, begin, noStart(), pieces);
            at = begin + length.get();
            lostFrom = at;
            pieces.add(new Piece.Whole(Arrays.copyOfRange(all, begin, at), payload(all, begin, at)));
        }
        lose(all, lostFrom, at, noStart(), pieces);
        buffer = Arrays.copyOfRange(all, at, all.length);
        return pieces;
    }

    /** What is not complete was no frame; what follows its beginning may hold one. */
    @Override
    public List<Piece> end() {
        List<Piece> pieces = new ArrayList<>();
        while (buffer.length > 0) {
            byte[] rest = buffer;
            buffer = new byte[0];
            int next = nextStart(rest, 1);
            lose(rest, 0, next, "a frame ended before it was complete", pieces);
            pieces.addAll(feed(Arrays.copyOfRange(rest, next, rest.length)));
        }
        return pieces;
    }

    private String noStart() {
        return "it does not begin with " + framing.start();
    }

    private static void lose(byte[] all, int from, int until, String reason, List<Piece> pieces) {
        if (until > from) {
            pieces.add(new Piece.Lost(Arrays.copyOfRange(all, from, Math.min(until, from + MOST_SHOWN)), reason));
        }
    }

    /** Where a frame may begin: at the fixed bytes, or at what may become them when more comes. */
    private int nextStart(byte[] all, int from) {
        for (int at = from; at < all.length; at++) {
            int here = Math.min(start.length, all.length - at);
            if (Arrays.equals(all, at, at + here, start, 0, here)) {
                return at;
            }
        }
        return all.length;
    }

    /** The length of the whole frame; empty while the byte that tells it has not come. */
    private Optional<Integer> length(byte[] all, int begin) {
        if (framing.lengthAt() == null) {
            return Optional.ofNullable(framing.length());
        }
        int count = lengthBytes();
        int at = begin + framing.lengthAt();
        if (at + count > all.length) {
            return Optional.empty();
        }
        int adds = framing.lengthAdds() == null ? 0 : framing.lengthAdds();
        return Optional.of((int) Bytes.number(all, at, count, Bytes.order(framing.lengthOrder())) + adds);
    }

    private int lengthBytes() {
        return framing.lengthBytes() == null ? 1 : framing.lengthBytes();
    }

    private int least() {
        int told = framing.lengthAt() == null ? 0 : framing.lengthAt() + lengthBytes();
        return Math.max(start.length, told) + checksum.bytes() + end.length;
    }

    private Optional<String> wrongLength(int length) {
        return length < least() || length > Framing.LONGEST
                ? Optional.of("its length, " + length + " bytes, cannot be")
                : Optional.empty();
    }

    private Optional<String> wrong(byte[] all, int begin, int length) {
        Optional<String> impossible = wrongLength(length);
        if (impossible.isPresent()) {
            return impossible;
        }
        int endAt = begin + length - end.length;
        if (!Arrays.equals(all, endAt, endAt + end.length, end, 0, end.length)) {
            return Optional.of("it does not end with " + framing.end());
        }
        if (checksum == Checksum.NONE) {
            return Optional.empty();
        }
        int sumAt = endAt - checksum.bytes();
        long sum = checksum.over(
                all, Math.min(sumAt, begin + (framing.checksumFrom() == null ? 0 : framing.checksumFrom())), sumAt);
        long said = Bytes.number(all, sumAt, checksum.bytes(), Bytes.order(framing.checksumOrder()));
        return sum == said
                ? Optional.empty()
                : Optional.of(String.format(
                        Locale.ROOT,
                        "the checksum (%s) is %0" + 2 * checksum.bytes() + "X, but the frame says %0"
                                + 2 * checksum.bytes() + "X: it was garbled on the way",
                        checksum.id(),
                        sum,
                        said));
    }

    private byte[] payload(byte[] all, int begin, int until) {
        int after =
                framing.lengthAt() == null ? start.length : Math.max(start.length, framing.lengthAt() + lengthBytes());
        int from = begin + (framing.payloadFrom() == null ? after : framing.payloadFrom());
        int to = until - end.length - checksum.bytes();
        return Arrays.copyOfRange(all, Math.min(from, to), to);
    }
}
