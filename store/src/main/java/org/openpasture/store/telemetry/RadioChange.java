package org.openpasture.store.telemetry;

import org.openpasture.core.fleet.Command;
import org.openpasture.core.lorawan.MacState;
import org.openpasture.core.lorawan.Session;

/** A change of what the network remembers of a device. */
public sealed interface RadioChange {
    String deviceId();

    /** A session begins, by a join or by personalisation; it replaces the one before. */
    record SessionBegan(String deviceId, Session session) implements RadioChange {}

    /** A join was answered while an older session holds; the device has both until it uses the new one. */
    record SessionOffered(String deviceId, Session session, MacState mac) implements RadioChange {}

    /** The counters of the running session. */
    record CountersMoved(String deviceId, long lastUp, long nextDown) implements RadioChange {}

    /** A join was answered: its DevNonce may never be used again, and the next JoinNonce is known. */
    record Joined(String deviceId, int devNonce, int nextJoinNonce) implements RadioChange {}

    /** What network and device agreed on. */
    record MacChanged(String deviceId, MacState state) implements RadioChange {}

    /** A command is wanted, or is in another state. */
    record CommandChanged(String deviceId, Command command) implements RadioChange {}

    /** The device is gone; so is what was remembered of it. */
    record Forgotten(String deviceId) implements RadioChange {}
}
