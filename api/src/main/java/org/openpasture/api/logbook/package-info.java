/** Requests and answers about the logbook. */
package org.openpasture.api.logbook;
