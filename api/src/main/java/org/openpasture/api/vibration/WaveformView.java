package org.openpasture.api.vibration;

import java.time.Instant;
import java.util.Map;

/**
 * A waveform for drawing, without its mean.
 *
 * @param time of its first sample
 * @param unit of the values: m/s², mm/s or µm
 * @param samples how many there are; more than the arrays hold if they were reduced to lowest and highest
 * @param seconds of each value, from the first sample on
 * @param bandHz where the band of the velocity, acceleration and displacement begins and ends
 * @param figures by id: velocity-rms (mm/s), acceleration-rms (m/s²), displacement-rms (µm), rms, peak, peak-to-peak
 *     (in the waveform's unit), crest-factor and kurtosis (no unit); without those that the waveform cannot show
 */
public record WaveformView(
        Instant time,
        String unit,
        int samples,
        double samplesPerSecond,
        double[] seconds,
        double[] values,
        double[] bandHz,
        Map<String, Double> figures) {}
