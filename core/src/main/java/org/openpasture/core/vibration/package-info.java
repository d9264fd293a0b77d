/**
 * Vibration from waveforms: figures, spectra, envelopes, bearing lines and what they usually point to. It knows no
 * device, no point and no storage.
 */
package org.openpasture.core.vibration;
