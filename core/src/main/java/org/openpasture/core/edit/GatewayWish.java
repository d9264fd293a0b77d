package org.openpasture.core.edit;

import java.util.Optional;
import org.openpasture.core.fleet.Gateway;

/** What a person wishes to do with a gateway. */
public sealed interface GatewayWish {
    /** Registers a gateway with an id that is new. */
    record Make(Gateway gateway, Counting counting) implements GatewayWish {
        /** One whose frames are not counted. */
        public Make(Gateway gateway) {
            this(gateway, Counting.AS_IT_IS);
        }
    }

    /** Gives the gateway with this id other properties; another site moves it. */
    record Change(Gateway gateway, Counting counting) implements GatewayWish {
        /** Its frames are counted as before. */
        public Change(Gateway gateway) {
            this(gateway, Counting.AS_IT_IS);
        }
    }

    /** Removes a gateway; what it relayed stays, and so does the point that counted it. */
    record Remove(String id) implements GatewayWish {}

    /**
     * Whether the frames of a gateway are counted at a point.
     *
     * @param wished empty to leave it as it is
     * @param newPointId the id of a point that is made for it if there is none yet
     * @param highestKept the highest number of a point of which readings are kept
     */
    record Counting(Optional<Boolean> wished, String newPointId, int highestKept) {
        static final Counting AS_IT_IS = new Counting(Optional.empty(), "", 0);
    }
}
