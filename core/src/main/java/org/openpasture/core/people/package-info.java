/** People and their grants. It knows no password. */
package org.openpasture.core.people;
