/** Doors: the list of events. It is gathered in the engine; who may see what of it is decided here. */
@NullMarked
package org.openpasture.service.event;

import org.jspecify.annotations.NullMarked;
