/** The graph that derived points make, and their readings. */
package org.openpasture.core.derive;
