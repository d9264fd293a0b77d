/** Addresses of fieldbus devices. It knows no protocol. */
package org.openpasture.inlets.fieldbus;
