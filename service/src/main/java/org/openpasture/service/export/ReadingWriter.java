package org.openpasture.service.export;

import java.io.IOException;
import org.openpasture.core.series.SeriesSlice;

/** Writes readings of points, piece by piece, and holds no more than a piece in memory. Closing it completes the file. */
interface ReadingWriter extends AutoCloseable {
  void write(ExportedPoint point, SeriesSlice piece) throws IOException;

  @Override
  void close() throws IOException;
}
