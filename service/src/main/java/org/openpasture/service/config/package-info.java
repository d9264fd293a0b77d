/**
 * Doors: wiring of stores, engine and doors. What runs without a request belongs to the engine, and is not known here
 * beyond its calls.
 */
package org.openpasture.service.config;
