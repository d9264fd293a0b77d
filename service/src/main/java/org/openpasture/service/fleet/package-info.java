/**
 * Doors: devices, gateways, models and frames. What runs without a request belongs to the engine, and is not known here
 * beyond its calls.
 */
package org.openpasture.service.fleet;
