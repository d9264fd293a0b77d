/** The logbook's door. It knows no alert and no reading. */
package org.openpasture.service.logbook;
