package org.openpasture.api.about;

import java.time.Instant;

/**
 * What runs here.
 *
 * @param version of Open Pasture
 * @param java version of the runtime
 * @param system name, version and architecture of the operating system
 */
public record AboutView(String version, String java, String system, String licence, Instant startedAt) {}
