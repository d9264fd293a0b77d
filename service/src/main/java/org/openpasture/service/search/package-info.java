/** The door of the search. */
package org.openpasture.service.search;
