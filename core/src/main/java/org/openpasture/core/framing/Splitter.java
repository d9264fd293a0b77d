package org.openpasture.core.framing;

import java.util.List;

/**
 * Cuts a stream into frames. Holds what came of a frame that is not complete; one for each connection, one thread at a
 * time.
 */
public sealed interface Splitter permits Splitter.OfWhole, LineSplitter, FrameSplitter {
    /** Takes the next bytes; returns what became complete by them. */
    List<Piece> feed(byte[] bytes);

    /**
     * Nothing more follows: the stream or the message is over, or nothing came for so long that what is not complete
     * never will be.
     */
    List<Piece> end();

    /** A part of the stream. */
    sealed interface Piece {
        /**
         * A frame.
         *
         * @param bytes all of it
         * @param payload what is inside of the framing
         */
        record Whole(byte[] bytes, byte[] payload) implements Piece {}

        /** Bytes that make no frame, with the reason. */
        record Lost(byte[] bytes, String reason) implements Piece {}
    }

    /** Each message is a frame. */
    final class OfWhole implements Splitter {
        @Override
        public List<Piece> feed(byte[] bytes) {
            return bytes.length == 0 ? List.of() : List.of(new Piece.Whole(bytes, bytes));
        }

        @Override
        public List<Piece> end() {
            return List.of();
        }
    }
}
