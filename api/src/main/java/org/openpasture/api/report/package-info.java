/** Requests and answers about reports that are sent by themselves. */
package org.openpasture.api.report;
