/** Keeps the readings of derived points: those that follow from what comes in, and those of the past. */
package org.openpasture.engine.derive;
