/** What waits to be passed on, for each outlet in order. It sends nothing. */
package org.openpasture.store.outlet;
