package org.openpasture.core.series;

import java.time.Instant;

/**
 * A stretch in which a point should have reported and did not.
 *
 * @param from the last reading before it
 * @param until the first after it
 */
public record Gap(Instant from, Instant until) {}
