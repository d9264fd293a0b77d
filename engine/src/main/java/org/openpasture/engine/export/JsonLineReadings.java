package org.openpasture.engine.export;

import java.io.IOException;
import java.io.OutputStream;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.series.SeriesSlice;
import tools.jackson.databind.json.JsonMapper;

/** One JSON object a line: time, point, value, unit, quality. */
final class JsonLineReadings implements ReadingWriter {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private final AsciiWriter out;

    JsonLineReadings(OutputStream to) {
        out = new AsciiWriter(to);
    }

    @Override
    public void write(ExportedPoint of, SeriesSlice piece) throws IOException {
        String after = ",\"unit\":" + JSON.writeValueAsString(of.point().unit()) + ",\"quality\":\"";
        for (int i = 0; i < piece.size(); i++) {
            out.put("{\"time\":\"")
                    .time(piece.times()[i], of.zone())
                    .put("\",\"point\":")
                    .number(of.point().number())
                    .put(",\"value\":")
                    .number(piece.values()[i])
                    .put(after)
                    .put(Quality.ofCode(piece.qualities()[i]).id())
                    .put("\"}\n");
        }
    }

    @Override
    public void close() throws IOException {
        out.flush();
    }
}
