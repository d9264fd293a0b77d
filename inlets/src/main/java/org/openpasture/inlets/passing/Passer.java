package org.openpasture.inlets.passing;

import java.io.IOException;

/** Passes messages on to one destination. One thread at a time. */
public interface Passer extends AutoCloseable {
  /** What the outside takes as one message. */
  record Message(String topic, String mediaType, byte[] body) {}

  /**
   * Sends a message; returns when the outside has taken it.
   *
   * @return what it answered, for people
   * @throws IOException in words, if it did not take it
   */
  String pass(Message message) throws IOException, InterruptedException;

  @Override
  void close();
}
