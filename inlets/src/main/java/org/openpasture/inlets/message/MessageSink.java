package org.openpasture.inlets.message;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import org.openpasture.core.framing.Framing;
import org.openpasture.core.framing.Splitter;

/** Takes what a transport brings. Any thread may call it. */
public interface MessageSink {
    /**
     * A frame came.
     *
     * @param whole as received
     * @param payload what is inside of its framing
     * @param sender who sent it, as far as the transport knows
     * @param names what came beside it: headers, parts of a topic
     * @return completes when it is on disk; a sender that waits for an answer gets it then. Fails if it could not be
     *     written
     */
    CompletableFuture<?> frame(byte[] whole, byte[] payload, String sender, Map<String, String> names);

    /**
     * A message came that may hold several frames.
     *
     * @return completes when all of them are on disk, fails if one could not be written
     */
    default CompletableFuture<?> message(Framing framing, byte[] message, String sender, Map<String, String> names) {
        List<CompletableFuture<?>> kept = new ArrayList<>();
        for (Splitter.Piece piece : framing.cut(message)) {
            switch (piece) {
                case Splitter.Piece.Whole(byte[] whole, byte[] payload) ->
                    kept.add(frame(whole, payload, sender, names));
                case Splitter.Piece.Lost(byte[] bytes, String reason) -> lost(bytes, sender, reason);
            }
        }
        return kept.size() == 1 ? kept.getFirst() : CompletableFuture.allOf(kept.toArray(CompletableFuture[]::new));
    }

    /** Something came that makes no frame. */
    void lost(byte[] bytes, String sender, String reason);

    /** From when on messages are wanted that a log elsewhere holds. */
    default Instant wantedSince() {
        return Instant.EPOCH;
    }

    /** The transport is in another condition. */
    void condition(Condition condition, String words);
}
