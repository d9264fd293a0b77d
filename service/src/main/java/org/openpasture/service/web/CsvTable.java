package org.openpasture.service.web;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.apache.commons.csv.QuoteMode;
import org.openpasture.core.text.Text;

/** A small table for other programs; a cell never begins a formula. */
public final class CsvTable {
    private static final CSVFormat TABLE =
            CSVFormat.RFC4180.builder().setQuoteMode(QuoteMode.ALL).get();

    private CsvTable() {}

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
