/** The health of data. */
package org.openpasture.service.health;
