/** Reads files of public holidays. Knows nothing of rules, and of no door. */
@NullMarked
package org.openpasture.engine.holiday;

import org.jspecify.annotations.NullMarked;
