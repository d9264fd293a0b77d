/** The list of events, as it is exchanged. */
@NullMarked
package org.openpasture.api.event;

import org.jspecify.annotations.NullMarked;
