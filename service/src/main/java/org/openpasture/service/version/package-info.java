/**
 * Keeps two people who edit one thing from overwriting each other. It knows how things are written, not what they are.
 */
@NullMarked
package org.openpasture.service.version;

import org.jspecify.annotations.NullMarked;
