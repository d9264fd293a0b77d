package org.openpasture.inlets.message;

/** A running transport. */
public interface MessageInlet extends AutoCloseable {
    /** Where it is reached, or what it reaches, for people. */
    String address();

    /** Stops it; returns when nothing more will be handed over. */
    @Override
    void close();
}
