/** Doors: reports as PDF. What is in them and how they are drawn belongs to the engine. */
@NullMarked
package org.openpasture.service.report;

import org.jspecify.annotations.NullMarked;
