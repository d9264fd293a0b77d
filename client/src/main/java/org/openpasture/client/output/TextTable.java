package org.openpasture.client.output;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** A plain table for a terminal: as wide as its contents, numbers to the right. */
public final class TextTable {
    private final List<String> headings;
    private final List<List<String>> rows = new ArrayList<>();

    public TextTable(String... headings) {
        this.headings = List.of(headings);
    }

    public void row(String... cells) {
        if (cells.length != headings.size()) {
            throw new IllegalArgumentException("a row needs " + headings.size() + " cells");
        }
        rows.add(Arrays.asList(cells));
    }

    public boolean isEmpty() {
        return rows.isEmpty();
    }

    /** The lines, without blanks at their ends. */
    public String text() {
        int columns = headings.size();
        int[] widths = new int[columns];
        boolean[] numeric = new boolean[columns];
        for (int c = 0; c < columns; c++) {
            int column = c;
            widths[c] = Math.max(
                    headings.get(c).length(),
                    rows.stream()
                            .mapToInt(row -> row.get(column).length())
                            .max()
                            .orElse(0));
            numeric[c] = !rows.isEmpty()
                    && rows.stream().allMatch(row -> row.get(column).matches("-?[0-9.]*( [^ ]{1,4})?"));
        }
        StringBuilder text = new StringBuilder();
        line(text, headings, widths, numeric);
        rows.forEach(row -> line(text, row, widths, numeric));
        return text.toString();
    }

    private static void line(StringBuilder text, List<String> cells, int[] widths, boolean[] numeric) {
        StringBuilder line = new StringBuilder();
        for (int c = 0; c < cells.size(); c++) {
            String pad = " ".repeat(widths[c] - cells.get(c).length());
            line.append(numeric[c] ? pad + cells.get(c) : cells.get(c) + pad).append("  ");
        }
        text.append(line.toString().stripTrailing()).append('\n');
    }
}
