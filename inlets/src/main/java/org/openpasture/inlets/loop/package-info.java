/** Threads that go on whatever a step throws. It knows nothing of what is done. */
package org.openpasture.inlets.loop;
