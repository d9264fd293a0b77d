package org.openpasture.core.inlet;

import org.jspecify.annotations.Nullable;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.framing.Framing;

/**
 * A configured way in for messages of devices that are no LoRaWAN ones.
 *
 * @param siteId whose rights decide who may see and change it
 * @param paused whether it takes nothing for now
 * @param framing how frames follow one another in what comes
 * @param contents how they are opened; null where devices are asked
 * @param keepEverySeconds of each device only so often a frame is kept, unless a channel changed by its dead band or
 *     more; null for every frame
 * @param reachesInside whether its address may lie in this machine or the networks around it, which who manages the
 *     instance decides; null, from before that was asked, for yes
 */
public record Inlet(
        String id,
        String name,
        String siteId,
        boolean paused,
        Source source,
        Framing framing,
        @Nullable Contents contents,
        @Nullable Integer keepEverySeconds,
        @Nullable Boolean reachesInside)
        implements Entity {
    private static final int A_DAY = 86_400;

    public Inlet {
        if (contents == null && !(source instanceof Source.Polled)) {
            throw new IllegalArgumentException("how its messages are opened is missing (contents)");
        }
        if (keepEverySeconds != null && (keepEverySeconds < 1 || keepEverySeconds > A_DAY)) {
            throw new IllegalArgumentException(
                    "a frame is kept every 1 to " + A_DAY + " seconds, not " + keepEverySeconds);
        }
    }

    /** The same, going or paused. */
    public Inlet paused(boolean now) {
        return new Inlet(id, name, siteId, now, source, framing, contents, keepEverySeconds, reachesInside);
    }

    public boolean mayReachInside() {
        return !Boolean.FALSE.equals(reachesInside);
    }

    /** The same, where it may lie in this machine or the networks around it, or not. */
    public Inlet reachingInside(boolean may) {
        return new Inlet(id, name, siteId, paused, source, framing, contents, keepEverySeconds, may);
    }
}
