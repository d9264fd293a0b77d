package org.openpasture.core.vibration;

/**
 * One line of a spectrum.
 *
 * @param hz where it lies, between the spectrum's own steps
 * @param rms how strong it is, as RMS in the spectrum's unit
 */
public record Line(double hz, double rms) {}
