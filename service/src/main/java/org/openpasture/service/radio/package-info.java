/**
 * Doors: commands, radio state and fleet signals. What runs without a request belongs to the engine, and is not known
 * here beyond its calls.
 */
package org.openpasture.service.radio;
