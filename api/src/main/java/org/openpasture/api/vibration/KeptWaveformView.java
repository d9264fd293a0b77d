package org.openpasture.api.vibration;

import java.time.Instant;

/**
 * A waveform that is kept, without its samples.
 *
 * @param time of its first sample
 * @param bytes that it takes on the disk
 */
public record KeptWaveformView(Instant time, int samples, double samplesPerSecond, int bytes) {}
