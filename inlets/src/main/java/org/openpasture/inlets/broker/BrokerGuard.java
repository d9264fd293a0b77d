package org.openpasture.inlets.broker;

import java.util.Optional;
import java.util.concurrent.CompletableFuture;

/** Says who may connect to the broker, and takes what they publish. Any thread may call it. */
public interface BrokerGuard {
    /** Whoever gives this name and password; empty if nobody does. May take its time. */
    Optional<Member> signIn(String name, String password);

    /** Somebody who is connected; asked anew each time, so that a right that is withdrawn is gone. */
    interface Member {
        boolean mayPublish(String topic);

        /** @param filter with + and # as in MQTT */
        boolean maySubscribe(String filter);

        /**
         * Something was published that this one may publish.
         *
         * @return completes when it is kept; then it is acknowledged and handed on to subscribers. Fails if it could
         *     not be kept
         */
        CompletableFuture<?> published(String topic, byte[] payload);
    }
}
