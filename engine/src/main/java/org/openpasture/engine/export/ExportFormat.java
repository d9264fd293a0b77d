package org.openpasture.engine.export;

import java.io.IOException;
import java.io.OutputStream;
import java.util.List;
import org.openpasture.core.entity.Ids;

/** The formats in which readings leave. */
public enum ExportFormat {
    /** Comma-separated values (RFC 4180), one line a reading. */
    CSV("csv", "csv", "text/csv;charset=UTF-8"),
    /** A workbook (ECMA-376), a sheet for each point. */
    XLSX("xlsx", "xlsx", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"),
    /** One JSON object a line. */
    JSON_LINES("json-lines", "jsonl", "application/jsonl"),
    /** Sensor measurement lists (RFC 8428). */
    SENML("senml", "senml.json", "application/senml+json");

    private final String id;
    private final String suffix;
    private final String mediaType;

    ExportFormat(String id, String suffix, String mediaType) {
        this.id = id;
        this.suffix = suffix;
        this.mediaType = mediaType;
    }

    public static ExportFormat of(String id) {
        return Ids.of(values(), format -> format.id, "format", id);
    }

    public String suffix() {
        return suffix;
    }

    public String mediaType() {
        return mediaType;
    }

    /** Begins to write readings of some points; each point's readings come together, in this order. */
    public ReadingWriter begin(OutputStream out, List<ExportedPoint> points) throws IOException {
        return switch (this) {
            case CSV -> new CsvReadings(out, points);
            case XLSX -> new XlsxReadings(out);
            case JSON_LINES -> new JsonLineReadings(out);
            case SENML -> new SenmlReadings(out);
        };
    }
}
