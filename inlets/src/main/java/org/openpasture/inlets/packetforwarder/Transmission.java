package org.openpasture.inlets.packetforwarder;

/**
 * A frame for a gateway to send at a moment of its own microsecond counter (txpk).
 *
 * @param counterMicros 32 bits, wraps
 * @param powerDbm radiated
 * @param dataRate "SF7BW125"
 */
public record Transmission(byte[] bytes, long counterMicros, long frequencyHz, int powerDbm, String dataRate) {}
