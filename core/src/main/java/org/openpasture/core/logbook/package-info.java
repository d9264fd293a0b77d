/** What people wrote about a place or a point, at a time. It knows no page and no chart. */
package org.openpasture.core.logbook;
