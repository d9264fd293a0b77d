package org.openpasture.engine.export;

import java.io.IOException;
import java.io.OutputStream;
import java.io.StringWriter;
import java.util.ArrayList;
import java.util.List;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.series.SeriesSlice;
import org.openpasture.core.text.Text;

/**
 * CSV (RFC 4180). The header names the time zone; with one point also its name and unit, with several each line does.
 * The import reads it again.
 */
final class CsvReadings implements ReadingWriter {
    private final AsciiWriter out;
    private final boolean several;

    CsvReadings(OutputStream to, List<ExportedPoint> points) throws IOException {
        out = new AsciiWriter(to);
        several = points.size() != 1;
        List<String> header = new ArrayList<>();
        header.add("time ("
                + (points.stream().map(ExportedPoint::zone).distinct().count() == 1
                        ? points.getFirst().zone().getId()
                        : "with offset")
                + ")");
        header.add("point");
        if (several) {
            header.addAll(List.of("value", "unit", "quality", "name"));
        } else {
            ExportedPoint only = points.getFirst();
            header.add(only.title()
                    + (only.point().unit().isEmpty() ? "" : " (" + only.point().unit() + ")"));
            header.add("quality");
        }
        out.put(line(header));
    }

    private static String line(List<String> fields) throws IOException {
        StringWriter text = new StringWriter();
        try (CSVPrinter printer = new CSVPrinter(text, CSVFormat.RFC4180)) {
            printer.printRecord(fields.stream().map(Text::cell).toList());
        }
        return text.toString();
    }

    @Override
    public void write(ExportedPoint of, SeriesSlice piece) throws IOException {
        String unit = several ? line(List.of(of.point().unit())).strip() : "";
        String name = several ? line(List.of(of.title())) : "";
        for (int i = 0; i < piece.size(); i++) {
            out.time(piece.times()[i], of.zone())
                    .put(',')
                    .number(of.point().number())
                    .put(',')
                    .number(piece.values()[i])
                    .put(',');
            if (several) {
                out.put(unit).put(',');
            }
            out.put(Quality.ofCode(piece.qualities()[i]).id());
            if (several) {
                out.put(',').put(name);
            } else {
                out.put("\r\n");
            }
        }
    }

    @Override
    public void close() throws IOException {
        out.flush();
    }
}
