/** Chunks, summaries and reductions of readings over time. It knows no file: stores keep what it packs. */
package org.openpasture.core.series;
