package org.openpasture.inlets.poll;

import org.openpasture.core.layout.RegisterLayout;

/**
 * A device that is asked.
 *
 * @param address as registered
 * @param everySeconds how often; rounds begin at whole multiples of it by the clock
 */
public record Target(String deviceId, String address, RegisterLayout layout, int everySeconds) {}
