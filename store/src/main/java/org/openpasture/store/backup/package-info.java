/** Copies of the records, and putting them back. It knows no service: it works while none runs too. */
package org.openpasture.store.backup;
