/** Waveforms of points as people see them. It knows no request and no reader's rights. */
package org.openpasture.engine.vibration;
