package org.openpasture.inlets.station;

import java.nio.ByteBuffer;
import java.util.List;
import org.java_websocket.drafts.Draft;
import org.java_websocket.drafts.Draft_6455;
import org.java_websocket.exceptions.InvalidHandshakeException;
import org.java_websocket.handshake.Handshakedata;
import org.java_websocket.protocols.Protocol;

/**
 * The WebSocket protocol (RFC 6455) with limits that hold before anything is allocated: a frame, or a message of
 * several frames, that says it is longer than a station's messages are ends its connection, and so does a request that
 * does not end.
 */
final class StationDraft extends Draft_6455 {
    /** In bytes; a message in frames counts as one. */
    static final int LONGEST_MESSAGE = 8_192;

    private static final int LONGEST_REQUEST = 8_192;

    private final Runnable tooLong;

    /** @param tooLong ends the connection: the library leaves open what it cannot read */
    StationDraft(Runnable tooLong) {
        super(List.of(), List.of(new Protocol("")), LONGEST_MESSAGE);
        this.tooLong = tooLong;
    }

    @Override
    public Draft copyInstance() {
        return new StationDraft(tooLong);
    }

    @Override
    public Handshakedata translateHandshake(ByteBuffer bytes) throws InvalidHandshakeException {
        if (bytes.remaining() > LONGEST_REQUEST) {
            tooLong.run();
            throw new InvalidHandshakeException("the request is longer than " + LONGEST_REQUEST + " bytes");
        }
        return super.translateHandshake(bytes);
    }
}
