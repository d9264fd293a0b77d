package org.openpasture.core.inlet;

import java.time.Instant;

/** An address that was heard at an inlet and belongs to no device, with its newest message. */
public record Stranger(String address, Instant firstHeard, Instant lastHeard, long count, Item.Opened newest) {}
