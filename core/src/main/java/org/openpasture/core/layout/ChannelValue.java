package org.openpasture.core.layout;

/**
 * One named value as the device reports it, before it has a meaning.
 *
 * @param value may be NaN or infinite, since a float in a frame can be; what uses it decides
 */
public record ChannelValue(String channel, double value) {}
