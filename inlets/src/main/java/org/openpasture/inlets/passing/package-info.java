/** Ways by which messages are passed on. It knows nothing of what is in them. */
package org.openpasture.inlets.passing;
