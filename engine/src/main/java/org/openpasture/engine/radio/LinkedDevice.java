package org.openpasture.engine.radio;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.lorawan.LinkHistory;
import org.openpasture.core.lorawan.MacState;
import org.openpasture.core.lorawan.Session;
import org.openpasture.store.telemetry.RadioMemory;

/** What the network has in mind of one device that has a session. On the network's thread. */
final class LinkedDevice {
    Session session;
    MacState mac;
    LinkHistory history = LinkHistory.empty();
    /** What the newest join offered and no frame has used yet; null if there is nothing. */
    RadioMemory.@Nullable Offer offer;
    /** Whether the session is on disk; until it is, what is kept of each frame begins it again. */
    volatile boolean onDisk;
    /** How it was heard last, the best first; empty after a restart. */
    List<Reception> heard = List.of();

    LinkedDevice(Session session, MacState mac) {
        this.session = session;
        this.mac = mac;
    }
}
