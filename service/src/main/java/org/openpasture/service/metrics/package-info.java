/** How the service itself goes, in numbers for other programs. It reads what others keep, and keeps nothing. */
@NullMarked
package org.openpasture.service.metrics;

import org.jspecify.annotations.NullMarked;
