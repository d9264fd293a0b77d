/** Answers of the search. */
package org.openpasture.api.search;
