/** Pictures of places in registry.db. It knows nothing of what is on them. */
package org.openpasture.store.picture;
