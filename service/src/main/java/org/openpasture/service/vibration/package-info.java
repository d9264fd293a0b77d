/**
 * Doors: questions about waveforms. What runs without a request belongs to the engine, and is not known here beyond its
 * calls.
 */
package org.openpasture.service.vibration;
