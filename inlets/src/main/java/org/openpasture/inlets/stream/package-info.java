/** TCP and UDP ports. It knows no contents beyond framing. */
package org.openpasture.inlets.stream;
