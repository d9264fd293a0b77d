/** Requests and answers about readings. Records alone: no rule and no right is checked here beyond their form. */
package org.openpasture.api.reading;
