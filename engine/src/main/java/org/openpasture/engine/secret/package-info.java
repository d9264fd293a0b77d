/** Random tokens and the hashes under which they are kept. It does not know whose they are. */
package org.openpasture.engine.secret;
