/** Addresses that are fetched again and again. It knows nothing of what is in an answer. */
package org.openpasture.inlets.fetch;
