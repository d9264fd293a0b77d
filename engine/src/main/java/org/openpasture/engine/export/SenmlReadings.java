package org.openpasture.engine.export;

import java.io.IOException;
import java.io.OutputStream;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.senml.SenmlUnit;
import org.openpasture.core.series.SeriesSlice;

/**
 * A SenML pack in JSON (RFC 8428): base name {@code point-NUMBER}, times in seconds since 1970. Units are those of the
 * SenML registry (RFC 8428 section 12.1, RFC 8798), values converted where they differ; units that it does not know are
 * left out. Readings of bad quality are left out, because SenML cannot say so of them.
 */
final class SenmlReadings implements ReadingWriter {
    private final AsciiWriter out;
    private boolean any;

    SenmlReadings(OutputStream to) {
        out = new AsciiWriter(to);
    }

    @Override
    public void write(ExportedPoint of, SeriesSlice piece) throws IOException {
        SenmlUnit unit = SenmlUnit.of(of.point().quantity(), of.point().unit());
        for (int i = 0; i < piece.size(); i++) {
            if (piece.qualities()[i] == Quality.BAD.code()) {
                continue;
            }
            out.put(any ? ",\n" : "[");
            any = true;
            out.put("{\"n\":\"point-").number(of.point().number()).put("\",\"t\":");
            long millis = piece.times()[i];
            if (millis % 1000 == 0) {
                out.put(Long.toString(millis / 1000));
            } else {
                out.put(java.math.BigDecimal.valueOf(millis, 3).toPlainString());
            }
            if (!unit.senml().isEmpty()) {
                out.put(",\"u\":\"").put(unit.senml()).put("\"");
            }
            out.put(",\"v\":").number(unit.toSenml(piece.values()[i])).put('}');
        }
    }

    @Override
    public void close() throws IOException {
        out.put(any ? "]\n" : "[]\n");
        out.flush();
    }
}
