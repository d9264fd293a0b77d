/**
 * What people write: which text can be shown and sent, and when two names are one. It knows nothing of what is named.
 */
@NullMarked
package org.openpasture.core.text;

import org.jspecify.annotations.NullMarked;
