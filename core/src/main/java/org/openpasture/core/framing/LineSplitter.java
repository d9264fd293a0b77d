package org.openpasture.core.framing;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/** Cuts a stream of text into lines; empty ones are left out, and one that never ends is given up. */
final class LineSplitter implements Splitter {
    private static final int LONGEST_LINE = 8_192;
    private final Framing.Lines framing;
    private byte[] buffer = new byte[256];
    private int held;
    /** Whether the rest of a line that was too long is still coming. */
    private boolean skipping;

    LineSplitter(Framing.Lines framing) {
        this.framing = framing;
    }

    @Override
    public List<Piece> feed(byte[] bytes) {
        List<Piece> pieces = new ArrayList<>();
        for (byte one : bytes) {
            if (isEnd(one)) {
                take(pieces);
            } else if (skipping) {
                continue;
            } else if (held == LONGEST_LINE) {
                pieces.add(new Piece.Lost(
                        Arrays.copyOf(buffer, 64), "a line is longer than " + LONGEST_LINE + " characters"));
                skipping = true;
            } else {
                if (held == buffer.length) {
                    buffer = Arrays.copyOf(buffer, Math.min(LONGEST_LINE, buffer.length * 2));
                }
                buffer[held++] = one;
            }
        }
        return pieces;
    }

    @Override
    public List<Piece> end() {
        List<Piece> pieces = new ArrayList<>();
        take(pieces);
        return pieces;
    }

    private boolean isEnd(byte one) {
        return framing.end() == null
                ? one == '\n' || one == '\r'
                : one == framing.end().charAt(0);
    }

    private void take(List<Piece> pieces) {
        byte[] line = Arrays.copyOf(buffer, held);
        held = 0;
        boolean tooLong = skipping;
        skipping = false;
        String text = new String(line, StandardCharsets.UTF_8).strip();
        if (tooLong || text.isEmpty()) {
            return;
        }
        pieces.add(Boolean.TRUE.equals(framing.checked()) ? checked(line, text) : new Piece.Whole(line, line));
    }

    private static Piece checked(byte[] line, String text) {
        int star = text.lastIndexOf('*');
        if (star < 0 || !text.substring(star + 1).matches("[0-9A-Fa-f]{2}")) {
            return new Piece.Lost(line, "the line does not end with * and two hex digits");
        }
        int from = text.startsWith("$") || text.startsWith("!") ? 1 : 0;
        byte[] inside = text.substring(from, star).getBytes(StandardCharsets.UTF_8);
        long sum = Checksum.XOR_8.over(inside, 0, inside.length);
        return sum == Integer.parseInt(text.substring(star + 1), 16)
                ? new Piece.Whole(line, inside)
                : new Piece.Lost(
                        line,
                        String.format(
                                Locale.ROOT,
                                "the checksum is %02X, but the line says %s: it was garbled on the way",
                                sum,
                                text.substring(star + 1)));
    }
}
