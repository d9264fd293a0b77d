/** Chunks and summaries on disk, sealing and erasing. It knows no judging. */
package org.openpasture.store.series;
