package org.openpasture.core.reading;

import java.time.Instant;
import org.openpasture.core.vibration.Waveform;

/**
 * A waveform of a point.
 *
 * @param point the point's number
 * @param time when its first sample was taken
 */
public record PointWaveform(int point, Instant time, Waveform waveform) {}
