package org.openpasture.inlets.poll;

import org.jspecify.annotations.Nullable;
import org.openpasture.core.layout.AskedLayout;

/**
 * A device that is asked, or a group of its channels with a period of its own.
 *
 * @param address as registered
 * @param group the period in the model that makes it a group; null for what is asked at the device's period
 * @param everySeconds how often; rounds begin at whole multiples of it by the clock
 */
public record Target(
        String deviceId,
        String address,
        AskedLayout layout,
        @Nullable Integer group,
        int everySeconds) {
    /** By which its turns and rounds are known. */
    public String key() {
        return group == null ? deviceId : deviceId + "/" + group;
    }
}
