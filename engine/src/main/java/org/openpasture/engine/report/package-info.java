/**
 * Reports: what the points of a place or a dashboard did over a period, with the alerts and the limits by which they
 * were judged, gathered from the record and drawn as PDF. It knows nothing of who asks; what a reader may see is told
 * to it.
 */
@NullMarked
package org.openpasture.engine.report;

import org.jspecify.annotations.NullMarked;
