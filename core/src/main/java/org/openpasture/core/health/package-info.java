/** What is wrong with the readings of a point, by the readings alone. It knows no point, no device and no limit. */
package org.openpasture.core.health;
