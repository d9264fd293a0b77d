/** Quantities with their units and ranges, and decimal arithmetic. It knows no reading. */
package org.openpasture.core.quantity;
