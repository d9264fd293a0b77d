/** Threads that go on whatever a step throws, and waits that end. It knows nothing of what is done. */
package org.openpasture.inlets.loop;
