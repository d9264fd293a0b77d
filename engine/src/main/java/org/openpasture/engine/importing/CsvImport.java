package org.openpasture.engine.importing;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Units;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.reading.Quality;
import org.openpasture.inlets.message.Causes;

/** Reads CSV whose columns are found by their names, or named by whoever brings it. */
public final class CsvImport {
    private static final Pattern IN_BRACKETS = Pattern.compile("(.*) \\(([^()]*)\\)");
    private static final int LONGEST_HEADER = 1 << 16;
    private final Columns columns;

    /**
     * Names of columns as given; null for those that are to be found.
     *
     * @param onlyPoint the point of all lines
     * @param zone in which times without an offset are meant
     */
    public record Columns(
            @Nullable String time,
            @Nullable String point,
            @Nullable String value,
            @Nullable String quality,
            @Nullable String onlyPoint,
            @Nullable ZoneId zone) {}

    /** Names of columns as they are in the file. */
    private record Found(
            String time,
            @Nullable String point,
            String value,
            @Nullable String unit,
            @Nullable String unitColumn,
            @Nullable String quality,
            @Nullable ZoneId zone,
            boolean decimalComma) {}

    public CsvImport(Columns columns) {
        this.columns = columns;
    }

    public void read(InputStream in, ReadingTaker taker) throws IOException {
        BufferedReader text = new BufferedReader(new InputStreamReader(in, StandardCharsets.UTF_8), LONGEST_HEADER);
        skipByteOrderMark(text);
        char separator = separator(text);
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setDelimiter(separator)
                .setHeader()
                .setSkipHeaderRecord(true)
                .setIgnoreHeaderCase(true)
                .setTrim(true)
                .setIgnoreEmptyLines(true)
                .get();
        BoundedLines lines = new BoundedLines(text);
        try (CSVParser parser = opened(format, lines)) {
            Found found = find(parser.getHeaderNames(), separator == ';');
            for (CSVRecord line : parser) {
                lines.next();
                taker.take(parser.getCurrentLineNumber(), () -> reading(taker, line, found));
            }
        } catch (UncheckedIOException | IOException e) {
            throw new UnreadableFile(
                    "the text is no CSV from here on: " + Causes.innermost(e).getMessage());
        }
    }

    /** Reads the header; one with two columns of a name, or a column without, is no header. */
    private static CSVParser opened(CSVFormat format, BoundedLines lines) throws IOException {
        try {
            return CSVParser.builder().setFormat(format).setReader(lines).get();
        } catch (IllegalArgumentException e) {
            throw new UnreadableFile("the first line names the columns, each once: " + e.getMessage());
        }
    }

    /** Spreadsheets write U+FEFF at the start of a text in UTF-8; it belongs to no column's name. */
    private static void skipByteOrderMark(BufferedReader text) throws IOException {
        text.mark(1);
        if (text.read() != '\uFEFF') {
            text.reset();
        }
    }

    /**
     * A header with more semicolons than commas is of the kind that spreadsheets write where the comma is for decimals.
     */
    private static char separator(BufferedReader text) throws IOException {
        text.mark(LONGEST_HEADER);
        int balance = 0;
        for (int read = text.read(), count = 1;
                read >= 0 && read != '\n' && count < LONGEST_HEADER;
                read = text.read(), count++) {
            balance += read == ';' ? 1 : read == ',' ? -1 : 0;
        }
        text.reset();
        return balance > 0 ? ';' : ',';
    }

    private Found find(List<String> headers, boolean decimalComma) {
        String time = columns.time() != null
                ? named(headers, columns.time())
                : headers.stream()
                        .filter(header -> header.equalsIgnoreCase("time")
                                || header.toLowerCase(java.util.Locale.ROOT).startsWith("time ("))
                        .findFirst()
                        .orElseThrow(() -> missing("time", headers));
        String point = columns.onlyPoint() != null
                ? null
                : columns.point() != null ? named(headers, columns.point()) : plain(headers, "point", true);
        String value = columns.value() != null ? named(headers, columns.value()) : plain(headers, "value", false);
        if (value == null) {
            List<String> withUnit = headers.stream()
                    .filter(header ->
                            !header.equals(time) && IN_BRACKETS.matcher(header).matches())
                    .toList();
            if (withUnit.size() != 1) {
                throw missing("value", headers);
            }
            value = withUnit.getFirst();
        }
        ZoneId zone = columns.zone() != null
                ? columns.zone()
                : inBrackets(time).map(CsvImport::zoneOrNull).orElse(null);
        return new Found(
                time,
                point,
                value,
                inBrackets(value).orElse(null),
                plain(headers, "unit", false),
                columns.quality() != null ? named(headers, columns.quality()) : plain(headers, "quality", false),
                zone,
                decimalComma);
    }

    private static java.util.Optional<String> inBrackets(String header) {
        Matcher matcher = IN_BRACKETS.matcher(header);
        return matcher.matches() ? java.util.Optional.of(matcher.group(2)) : java.util.Optional.empty();
    }

    private static @Nullable ZoneId zoneOrNull(String id) {
        try {
            return ZoneId.of(id);
        } catch (DateTimeException e) {
            return null;
        }
    }

    private static String named(List<String> headers, String name) {
        return headers.stream().filter(name::equalsIgnoreCase).findFirst().orElseThrow(() -> missing(name, headers));
    }

    private static @Nullable String plain(List<String> headers, String name, boolean needed) {
        String found =
                headers.stream().filter(name::equalsIgnoreCase).findFirst().orElse(null);
        if (found == null && needed) {
            throw missing(name, headers);
        }
        return found;
    }

    private static UnreadableFile missing(String column, List<String> headers) {
        return new UnreadableFile(
                "the first line must name the columns time, point and value; '" + column + "' is missing. It names: "
                        + String.join(", ", headers) + ". Say which column is which, or name the point of all lines.");
    }

    private PointReading reading(ReadingTaker taker, CSVRecord line, Found found) {
        if (!line.isConsistent()) {
            throw new IllegalArgumentException("the line has " + line.size() + " fields, the header names "
                    + line.getParser().getHeaderNames().size());
        }
        String name = columns.onlyPoint() != null
                ? columns.onlyPoint()
                : found.point() == null ? "" : line.get(found.point());
        Point point = taker.point(name);
        String unit = found.unitColumn() != null ? line.get(found.unitColumn()) : found.unit();
        double given = value(line.get(found.value()), found.decimalComma());
        double value = unit == null
                ? given
                : Units.convert(given, unit, point.unit())
                        .orElseThrow(() -> new IllegalArgumentException("the value is in '" + unit + "', but "
                                + point.name() + " is kept in '" + point.unit() + "'"));
        Quality quality = found.quality() == null || line.get(found.quality()).isBlank()
                ? null
                : Quality.of(line.get(found.quality()));
        return taker.reading(point, time(line.get(found.time()), found.zone()), value, quality);
    }

    private static Instant time(String text, @Nullable ZoneId zone) {
        try {
            if (text.matches("\\d{9,13}")) {
                long number = Long.parseLong(text);
                return text.length() > 10 ? Instant.ofEpochMilli(number) : Instant.ofEpochSecond(number);
            }
            String iso = text.replaceFirst("^(\\d{4}-\\d{2}-\\d{2}) (?=\\d)", "$1T");
            return zone != null && iso.matches(".*T[\\d:.]+")
                    ? local(LocalDateTime.parse(iso), zone)
                    : OffsetDateTime.parse(iso).toInstant();
        } catch (DateTimeException e) {
            throw new IllegalArgumentException(
                    "Cannot read '" + text + "' as a time. Use a time such as 2026-03-01T08:15:00+01:00"
                            + (zone == null ? ", or choose the time zone of times without an offset" : "") + ".",
                    e);
        }
    }

    /** A local time, unless the clocks make it come twice or leave it out. */
    private static Instant local(LocalDateTime time, ZoneId zone) {
        List<ZoneOffset> offsets = zone.getRules().getValidOffsets(time);
        if (offsets.isEmpty()) {
            throw new IllegalArgumentException("the local time " + time + " does not exist in " + zone
                    + ": the clocks were set forward over it; write it with its offset");
        }
        if (offsets.size() > 1) {
            throw new IllegalArgumentException("the local time " + time + " comes twice in " + zone
                    + ", as the clocks were set back; write it with its offset, " + offsets.getFirst() + " or "
                    + offsets.getLast());
        }
        return time.toInstant(offsets.getFirst());
    }

    private static double value(String text, boolean decimalComma) {
        String plain = decimalComma ? text.replace(',', '.') : text;
        double value;
        try {
            value = Double.parseDouble(plain);
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException("'" + text + "' is no number", e);
        }
        if (!Double.isFinite(value)) {
            throw new IllegalArgumentException("'" + text + "' is no finite number");
        }
        return value;
    }
}
