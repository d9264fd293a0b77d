package org.openpasture.inlets.message;

import java.util.List;
import java.util.Map;
import java.util.concurrent.Semaphore;
import org.openpasture.core.framing.Framing;
import org.openpasture.core.framing.Splitter;

/**
 * One stream of bytes on its way to the sink: cut into frames, and held up while too many of them wait for the disk.
 * One thread at a time.
 */
public final class Hose {
    private static final int MOST_WAITING = 1_000;
    private final Semaphore room = new Semaphore(MOST_WAITING);
    private final Splitter splitter;
    private final MessageSink sink;
    private final String sender;

    public Hose(Framing framing, MessageSink sink, String sender) {
        this.splitter = framing.splitter();
        this.sink = sink;
        this.sender = sender;
    }

    /** The next bytes. */
    public void feed(byte[] bytes) throws InterruptedException {
        deliver(splitter.feed(bytes));
    }

    /** Nothing more comes, or nothing came for a while. */
    public void pause() throws InterruptedException {
        deliver(splitter.end());
    }

    private void deliver(List<Splitter.Piece> pieces) throws InterruptedException {
        for (Splitter.Piece piece : pieces) {
            switch (piece) {
                case Splitter.Piece.Whole(byte[] bytes, byte[] payload) -> {
                    room.acquire();
                    sink.frame(bytes, payload, sender, Map.of()).whenComplete((done, error) -> room.release());
                }
                case Splitter.Piece.Lost(byte[] bytes, String reason) -> sink.lost(bytes, sender, reason);
            }
        }
    }
}
