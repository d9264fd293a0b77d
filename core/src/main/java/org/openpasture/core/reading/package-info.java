/** Readings, their quality, and how they arrive. It knows no place where readings are kept. */
package org.openpasture.core.reading;
