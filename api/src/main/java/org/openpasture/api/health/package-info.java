/** Answers about the health of data. Records alone: no rule and no right is checked here. */
package org.openpasture.api.health;
