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
     * @throws Refused if the outside is there and does not want this message, whenever it comes
     * @throws IOException in words, if it did not take it for another reason
     */
    String pass(Message message) throws IOException, InterruptedException;

    /** The outside refuses a message for what it is. */
    final class Refused extends IOException {
        private static final long serialVersionUID = 1L;

        public Refused(String message) {
            super(message);
        }
    }

    @Override
    void close();
}
