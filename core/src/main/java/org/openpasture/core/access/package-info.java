/** What a person may do, by the grants of one registry. It knows no session, password or request. */
package org.openpasture.core.access;
