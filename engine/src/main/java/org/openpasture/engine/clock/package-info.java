/** A clock that does not jump with the host's. It knows nothing of what happens in time. */
package org.openpasture.engine.clock;
