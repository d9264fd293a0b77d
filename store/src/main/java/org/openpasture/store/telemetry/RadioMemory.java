package org.openpasture.store.telemetry;

import java.util.List;
import java.util.Map;
import java.util.Set;
import org.openpasture.core.fleet.Command;
import org.openpasture.core.lorawan.MacState;
import org.openpasture.core.lorawan.Session;

/**
 * What the network remembered of all devices when the service started.
 *
 * @param sessions by device id
 * @param offers sessions that a join offered and no frame has used yet, by device id
 * @param usedNonces DevNonces by device id
 * @param joinNonces the next JoinNonce by device id
 * @param macStates by device id
 * @param commands that are not done with, in the order in which they were wanted
 * @param lastCommandId the highest number of a command, 0 before the first
 */
public record RadioMemory(
        Map<String, Session> sessions,
        Map<String, Offer> offers,
        Map<String, Set<Integer>> usedNonces,
        Map<String, Integer> joinNonces,
        Map<String, MacState> macStates,
        List<Command> commands,
        long lastCommandId) {
    /** A session that a join offered, with the state that it begins with. */
    public record Offer(Session session, MacState mac) {}
}
