package org.openpasture.core.layout;

import org.openpasture.core.vibration.Waveform;

/** A waveform as a device reports it; the channel is the one that its velocity is a value of. */
public record ChannelWaveform(String channel, Waveform waveform) {}
