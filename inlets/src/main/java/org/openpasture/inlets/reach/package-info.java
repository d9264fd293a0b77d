/** Where a connection that somebody asked for may lead. It knows no protocol. */
@NullMarked
package org.openpasture.inlets.reach;

import org.jspecify.annotations.NullMarked;
