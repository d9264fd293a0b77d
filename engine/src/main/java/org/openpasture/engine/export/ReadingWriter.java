package org.openpasture.engine.export;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Instant;
import org.openpasture.core.series.Records;
import org.openpasture.core.series.SeriesSlice;

/**
 * Writes readings of points, piece by piece, and holds no more than a piece in memory. Closing it completes the file.
 */
public interface ReadingWriter extends AutoCloseable {
    void write(ExportedPoint point, SeriesSlice piece) throws IOException;

    /** Writes all readings of a point in a range. */
    static void all(Records records, ReadingWriter writer, ExportedPoint of, Instant from, Instant until)
            throws IOException {
        try {
            records.read(of.point().number(), from, until, piece -> {
                try {
                    writer.write(of, piece.in(of.change()));
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
            });
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }

    @Override
    void close() throws IOException;
}
