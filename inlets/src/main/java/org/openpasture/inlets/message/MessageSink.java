package org.openpasture.inlets.message;

import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;

/** Takes what a transport brings. Any thread may call it. */
public interface MessageSink {
  /**
   * A frame came.
   *
   * @param whole as received
   * @param payload what is inside of its framing
   * @param sender who sent it, as far as the transport knows
   * @param names what came beside it: headers, parts of a topic
   * @return completes when it is on disk; a sender that waits for an answer gets it then. Fails if it could not be written
   */
  CompletableFuture<?> frame(byte[] whole, byte[] payload, String sender, Map<String, String> names);

  /** Something came that makes no frame. */
  void lost(byte[] bytes, String sender, String reason);

  /** The time of the newest that came; empty if nothing did. */
  default Optional<Instant> newest() {
    return Optional.empty();
  }

  /** The transport is in another condition. */
  void condition(Condition condition, String words);
}
