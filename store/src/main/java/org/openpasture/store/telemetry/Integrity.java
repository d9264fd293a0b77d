package org.openpasture.store.telemetry;

import java.util.List;

/**
 * What a check of all that is stored found.
 *
 * @param chunks that were read, and could be
 * @param readings in them
 * @param summaries in blocks that could be read
 * @param faults what is wrong, in words; empty if nothing is
 */
public record Integrity(long chunks, long readings, long summaries, List<String> faults) {}
