/**
 * Doors: problem details (RFC 9457). What runs without a request belongs to the engine, and is not known here beyond
 * its calls.
 */
package org.openpasture.service.problem;
