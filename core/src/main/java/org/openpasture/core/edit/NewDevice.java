package org.openpasture.core.edit;

import org.openpasture.core.fleet.Device;

/**
 * A device that is about to be brought in.
 *
 * @param makePoints whether each channel of its model gets a point at once, not yet released
 */
public record NewDevice(Device device, boolean makePoints) {}
