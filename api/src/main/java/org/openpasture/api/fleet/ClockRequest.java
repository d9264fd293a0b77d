package org.openpasture.api.fleet;

/**
 * What to do about a device whose clock is wrong.
 *
 * @param correct whether the times that it sends are shifted so that the newest of each message is that of its arrival
 */
public record ClockRequest(boolean correct) {}
