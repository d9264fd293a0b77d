/** How streams and messages are cut into frames, and their checksums. It knows no stream. */
package org.openpasture.core.framing;
