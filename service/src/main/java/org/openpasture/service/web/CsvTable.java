package org.openpasture.service.web;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Stream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVPrinter;
import org.apache.commons.csv.CSVRecord;
import org.apache.commons.csv.QuoteMode;
import org.openpasture.core.text.Text;

/** A small table for other programs; a cell never begins a formula. */
public final class CsvTable {
    private static final CSVFormat TABLE =
            CSVFormat.RFC4180.builder().setQuoteMode(QuoteMode.ALL).get();

    private CsvTable() {}

    private static final CSVFormat READ = CSVFormat.RFC4180
            .builder()
            .setHeader()
            .setSkipHeaderRecord(true)
            .setTrim(true)
            .setIgnoreEmptyLines(true)
            .get();
    private static final String BYTE_ORDER_MARK = "\uFEFF";

    /**
     * The rows of a table that {@link #of} wrote, perhaps changed in a spreadsheet: each by the names of its columns,
     * in lower case.
     *
     * @throws IllegalArgumentException if the text is none, has more rows than allowed, or a row has other columns than
     *     the first, in a sentence for people
     */
    public static List<Map<String, String>> read(byte[] file, int most) {
        String text = text(file);
        String plain = text.startsWith(BYTE_ORDER_MARK) ? text.substring(1) : text;
        List<Map<String, String>> rows = new ArrayList<>();
        CSVFormat format = READ.builder().setDelimiter(delimiter(plain)).get();
        try (CSVParser parser = CSVParser.parse(plain, format)) {
            for (CSVRecord line : parser) {
                if (rows.size() == most) {
                    throw new IllegalArgumentException("there are more than " + most + " rows; change them in parts");
                }
                if (!line.isConsistent()) {
                    throw new IllegalArgumentException("line " + parser.getCurrentLineNumber() + " has " + line.size()
                            + " fields, and the first line names "
                            + parser.getHeaderNames().size());
                }
                Map<String, String> row = new LinkedHashMap<>();
                line.toMap().forEach((column, cell) -> row.put(column.toLowerCase(Locale.ROOT), uncell(cell)));
                rows.add(row);
            }
            return rows;
        } catch (IOException | UncheckedIOException e) {
            throw new IllegalArgumentException("the text is no CSV: " + e.getMessage(), e);
        }
    }

    /** Spreadsheets where a comma stands in numbers write semicolons. */
    private static char delimiter(String text) {
        String first = text.lines().findFirst().orElse("");
        return Stream.of(',', ';', '\t')
                .max(Comparator.comparingLong(
                        sign -> first.chars().filter(c -> c == sign).count()))
                .orElse(',');
    }

    /** UTF-8, and what is none in the code page that older spreadsheets write in the west of Europe. */
    private static String text(byte[] file) {
        try {
            return StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(file))
                    .toString();
        } catch (CharacterCodingException e) {
            return new String(file, Charset.forName("windows-1252"));
        }
    }

    /** Without the apostrophe that keeps a spreadsheet from taking a cell for a formula. */
    private static String uncell(String cell) {
        return cell.length() > 1
                        && cell.charAt(0) == '\''
                        && !Text.cell(cell.substring(1)).equals(cell.substring(1))
                ? cell.substring(1)
                : cell;
    }

    /** The table as text. */
    public static String of(List<String> header, List<List<Object>> rows) {
        StringBuilder text = new StringBuilder();
        try (CSVPrinter printer = new CSVPrinter(text, TABLE)) {
            printer.printRecord(header);
            for (List<Object> row : rows) {
                printer.printRecord(row.stream().map(String::valueOf).map(Text::cell));
            }
        } catch (IOException e) {
            throw new UncheckedIOException("text in memory can always be written", e);
        }
        return text.toString();
    }
}
