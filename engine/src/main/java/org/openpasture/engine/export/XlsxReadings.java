package org.openpasture.engine.export;

import java.io.IOException;
import java.io.OutputStream;
import java.time.Instant;
import java.util.HashSet;
import java.util.Locale;
import java.util.Set;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.series.SeriesSlice;
import org.openpasture.core.text.Text;

/**
 * A workbook with a sheet for each point; a further sheet where one is full. Times are local to the site, as cells of
 * type date.
 */
final class XlsxReadings implements ReadingWriter {
    private static final int MOST_ROWS = 1_048_576;
    private static final int FLUSH_EVERY = 2_000;
    private static final int LONGEST_NAME = 31;
    private final Workbook workbook;
    private final Set<String> names = new HashSet<>();
    private @Nullable ExportedPoint now;
    private @Nullable Worksheet sheet;
    private int row;

    XlsxReadings(OutputStream out) {
        workbook = new Workbook(out, "OpenPasture", "1.0");
    }

    private Worksheet begin(ExportedPoint of) throws IOException {
        if (sheet != null) {
            sheet.close();
        }
        now = of;
        Worksheet made = workbook.newWorksheet(name(of));
        made.width(0, 22);
        made.width(1, 24);
        made.value(0, 0, "time (" + of.zone().getId() + ")");
        made.value(
                0,
                1,
                Text.cell(of.title())
                        + (of.point().unit().isEmpty() ? "" : " (" + of.point().unit() + ")"));
        made.value(0, 2, "quality");
        made.range(0, 0, 0, 2).style().bold().set();
        made.freezePane(0, 1);
        sheet = made;
        row = 1;
        return made;
    }

    /** A name that no sheet has yet, of the characters and the length that sheets allow. */
    private String name(ExportedPoint of) {
        String base = (of.point().number() + " " + of.title()).replaceAll("[\\[\\]:*?/\\\\']", " ");
        String name = base.substring(0, Math.min(LONGEST_NAME, base.length()));
        for (int i = 2; !names.add(name.toLowerCase(Locale.ROOT)); i++) {
            String end = " (" + i + ")";
            name = base.substring(0, Math.min(LONGEST_NAME - end.length(), base.length())) + end;
        }
        return name;
    }

    @Override
    public void write(ExportedPoint of, SeriesSlice piece) throws IOException {
        for (int i = 0; i < piece.size(); i++) {
            Worksheet on = sheet == null || now != of || row == MOST_ROWS ? begin(of) : sheet;
            on.value(
                    row,
                    0,
                    Instant.ofEpochMilli(piece.times()[i]).atZone(of.zone()).toLocalDateTime());
            on.style(row, 0).format("yyyy-mm-dd hh:mm:ss").set();
            on.value(row, 1, piece.values()[i]);
            on.value(row, 2, Quality.ofCode(piece.qualities()[i]).id());
            row++;
            if (row % FLUSH_EVERY == 0) {
                on.flush();
            }
        }
    }

    @Override
    public void close() throws IOException {
        if (sheet == null) {
            workbook.newWorksheet("no readings").value(0, 0, "There are no readings in this range.");
        } else {
            sheet.close();
        }
        workbook.finish();
    }
}
