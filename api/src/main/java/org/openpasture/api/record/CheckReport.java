package org.openpasture.api.record;

import java.util.List;

/**
 * What a check found.
 *
 * @param readings that could be read
 * @param faults in words; empty if all is well
 */
public record CheckReport(long readings, List<String> faults) {}
