/** Encryption at rest. It knows nothing of what is encrypted. */
package org.openpasture.store.secret;
