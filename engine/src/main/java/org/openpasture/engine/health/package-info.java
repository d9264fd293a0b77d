/** Looks through the record for data that cannot be relied upon. It changes nothing. */
package org.openpasture.engine.health;
