package org.openpasture.api.inlet;

import java.time.Instant;

/**
 * An address that was heard at an inlet and belongs to no device.
 *
 * @param newest its newest message, as text or hex digits
 */
public record StrangerView(String address, Instant firstHeard, Instant lastHeard, long count, String newest) {}
