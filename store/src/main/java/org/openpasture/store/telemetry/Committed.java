package org.openpasture.store.telemetry;

import java.util.List;
import org.openpasture.core.frame.Frame;
import org.openpasture.core.judging.Event;

/**
 * What one group commit made durable.
 *
 * @param journalSeq the last journal row up to now
 * @param events in order
 * @param frames with the ids that they got
 */
public record Committed(long journalSeq, List<Event> events, List<Frame> frames) {}
