package org.openpasture.inlets.broker;

import java.time.Duration;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;

/**
 * Whose the names of clients are, with their sessions, and what each member has retained. A name belongs to who
 * connected with it first, until the session has ended: nobody else takes over the connection, or is handed what waits
 * in it. Any thread.
 */
final class Sessions {
    /** Longer than this the broker keeps no session that nobody is connected to. */
    static final Duration KEPT = Duration.ofDays(1);

    private static final int MOST_OF_ONE = 2_000;
    private static final int MOST_RETAINED_OF_ONE = 5_000;

    /**
     * A client's session.
     *
     * @param number of the connection that it has, or had last
     * @param leftAtNanos when it lost that; {@link Long#MIN_VALUE} while it is connected
     */
    private record Session(BrokerGuard.Member member, String number, boolean kept, long leftAtNanos) {
        boolean isConnected() {
            return leftAtNanos == Long.MIN_VALUE;
        }
    }

    /** Guarded by this: by the client's name. */
    private final Map<String, Session> sessions = new HashMap<>();
    /** Guarded by this: topics by who retained something there. */
    private final Map<String, Set<String>> retained = new HashMap<>();

    /** Why a client is not let in. */
    enum Refusal {
        ANOTHERS_NAME,
        TOO_MANY
    }

    /**
     * A client connects.
     *
     * @param kept whether its session outlasts the connection
     * @return empty list if it may, else why not
     */
    synchronized List<Refusal> enter(String client, String number, BrokerGuard.Member member, boolean kept) {
        forgetOld();
        Session before = sessions.get(client);
        if (before != null && !before.member().key().equals(member.key())) {
            return List.of(Refusal.ANOTHERS_NAME);
        }
        long theirs = sessions.values().stream()
                .filter(one -> one.member().key().equals(member.key()))
                .count();
        if (before == null && theirs >= MOST_OF_ONE) {
            return List.of(Refusal.TOO_MANY);
        }
        sessions.put(client, new Session(member, number, kept, Long.MIN_VALUE));
        return List.of();
    }

    /** A connection has ended. */
    synchronized void leave(String client, String number) {
        Session session = sessions.get(client);
        if (session == null || !session.number().equals(number)) {
            return;
        }
        if (session.kept()) {
            sessions.put(client, new Session(session.member(), number, true, System.nanoTime()));
        } else {
            sessions.remove(client);
        }
    }

    private void forgetOld() {
        long now = System.nanoTime();
        sessions.values().removeIf(one -> !one.isConnected() && now - one.leftAtNanos() > KEPT.toNanos());
    }

    /** Takes out the sessions of members for whom something holds, and names their clients. */
    synchronized List<String> end(Predicate<BrokerGuard.Member> of) {
        List<String> ended = sessions.entrySet().stream()
                .filter(entry -> of.test(entry.getValue().member()))
                .map(Map.Entry::getKey)
                .toList();
        ended.forEach(sessions::remove);
        return ended;
    }

    /** The members that have sessions, each once for every session. */
    synchronized List<BrokerGuard.Member> members() {
        return sessions.values().stream().map(Session::member).toList();
    }

    /** Whether a member may retain something at a topic; with an empty message it gives the place free. */
    synchronized boolean mayRetain(String key, String topic, boolean empty) {
        Set<String> topics = retained.computeIfAbsent(key, id -> new HashSet<>());
        if (empty) {
            topics.remove(topic);
            return true;
        }
        return topics.contains(topic) || topics.size() < MOST_RETAINED_OF_ONE && topics.add(topic);
    }
}
