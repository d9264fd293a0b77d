package org.openpasture.store.telemetry;

import java.util.Map;
import java.util.Set;
import org.openpasture.core.lorawan.Session;

/**
 * What the network remembered of all devices when the service started.
 *
 * @param sessions by device id
 * @param usedNonces DevNonces by device id
 * @param joinNonces the next JoinNonce by device id
 */
public record RadioMemory(Map<String, Session> sessions, Map<String, Set<Integer>> usedNonces,
    Map<String, Integer> joinNonces) {}
