/** Files in YAML: how they are read and written, and what is said of one that cannot be used. It knows no content. */
@NullMarked
package org.openpasture.core.yaml;

import org.jspecify.annotations.NullMarked;
