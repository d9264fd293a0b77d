package org.openpasture.inlets.gateway;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.frame.Reception;
import org.openpasture.core.lorawan.DataRate;
import org.openpasture.core.lorawan.Eui64;

/**
 * A frame for a device, and when and how a gateway may send it.
 *
 * @param device whose it is
 * @param after the uplink that it answers, as this gateway heard it; null for a device that always listens: then it
 *     goes at once
 * @param windows ways to send it, the first that works is taken; at least one
 */
public record Order(byte[] bytes, Eui64 device, @Nullable Reception after, List<Window> windows) {
    public Order {
        windows = List.copyOf(windows);
    }

    /**
     * One way to send it.
     *
     * @param name for people, such as "RX1"
     * @param delaySeconds after the end of the uplink; of no meaning without one
     */
    public record Window(String name, int delaySeconds, long frequencyHz, DataRate dataRate, int powerDbm) {}
}
