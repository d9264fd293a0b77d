package org.openpasture.api.fleet;

import java.time.Instant;
import org.openpasture.core.lorawan.Eui64;

/** A gateway that speaks to us and that nobody registered; its frames are not taken. */
public record HeardGateway(Eui64 eui, Instant firstHeard, Instant lastHeard, long frames) {}
