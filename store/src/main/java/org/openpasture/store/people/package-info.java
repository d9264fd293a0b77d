/** Password hashes, sessions and invitations. It knows no request. */
package org.openpasture.store.people;
