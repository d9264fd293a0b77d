package org.openpasture.inlets.broker;

import java.util.Optional;
import java.util.concurrent.CompletableFuture;

/** Says who may connect to the broker, and takes what they publish. Any thread may call it. */
public interface BrokerGuard {
    /**
     * Whoever gives this name and password; empty if nobody does. May take its time.
     *
     * @param source the address that they connect from
     */
    Optional<Member> signIn(String name, String password, String source);

    /** Somebody who is connected; asked anew each time, so that a right that is withdrawn is gone. */
    interface Member {
        /** Who it is, the same over all their connections: the names of their clients are theirs alone. */
        String key();

        /** Whether they would be let in again as they were; once not, their connections and sessions end. */
        boolean isWelcome();

        boolean mayPublish(String topic);

        /** @param filter with + and # as in MQTT */
        boolean maySubscribe(String filter);

        /** Whether what is published to a topic may be handed to them now. */
        boolean mayReceive(String topic);

        /**
         * Something was published that this one may publish.
         *
         * @return completes when it is kept; then it is acknowledged and handed on to subscribers. Fails if it could
         *     not be kept
         */
        CompletableFuture<?> published(String topic, byte[] payload);
    }
}
