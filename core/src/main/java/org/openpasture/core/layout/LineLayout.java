package org.openpasture.core.layout;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * A line of text whose values stand between separators: {@code WS2;8.4;1013;0.2}, or with labels, {@code T=8.4;P=1013}.
 *
 * @param separator between two values, 1 to 4 characters; a single blank stands for any run of blanks and tabs
 * @param messages kinds of lines; the first whose beginning fits is taken
 */
public record LineLayout(String separator, List<Line> messages) implements Layout {
    private static final int MOST_COLUMNS = 1_000;

    public LineLayout {
        messages = List.copyOf(messages);
        if (separator.isEmpty() || separator.length() > 4) {
            throw new IllegalArgumentException("the separator has 1 to 4 characters, not " + separator.length());
        }
    }

    /**
     * One kind of line.
     *
     * @param starts the text it begins with; null for any
     */
    public record Line(@Nullable String starts, List<TextField> fields) {
        public Line {
            fields = List.copyOf(fields);
        }
    }

    /** Lines of one kind. */
    public static LineLayout of(String separator, TextField... fields) {
        return new LineLayout(separator, List.of(new Line(null, List.of(fields))));
    }

    /** A line that lacks a column, or has no number in one, is refused as a whole; an empty column is no value. */
    @Override
    public Decoding decode(int port, byte[] payload) {
        String text = new String(payload, StandardCharsets.UTF_8).strip();
        Optional<Line> line = line(text);
        if (line.isEmpty()) {
            return new Decoding.Refused("the layout describes no line that begins like this one");
        }
        List<Column> columns = columns(text);
        List<ChannelValue> values = new ArrayList<>();
        for (TextField field : line.get().fields()) {
            Optional<Column> column = column(columns, field.at());
            if (column.isEmpty()) {
                return new Decoding.Refused(
                        isNumber(field.at())
                                ? "the line has " + columns.size() + " columns, but '" + field.channel()
                                        + "' stands in column " + field.at()
                                : "the line has no value labelled '" + field.at() + "' for '" + field.channel() + "'");
            }
            switch (field.read(column.get().text(), !separator.contains(","))) {
                case TextField.Read.Value(double number) -> values.add(new ChannelValue(field.channel(), number));
                case TextField.Read.Nothing nothing -> {}
                case TextField.Read.Unreadable(String reason) -> {
                    return new Decoding.Refused(reason);
                }
            }
        }
        return new Decoding.Decoded(values);
    }

    private Optional<Line> line(String text) {
        return messages.stream()
                .filter(one -> one.starts() == null || text.startsWith(one.starts()))
                .findFirst();
    }

    /** In bytes of the payload, as long as it is plain ASCII. */
    @Override
    public List<Part> parts(int port, byte[] payload) {
        String text = new String(payload, StandardCharsets.ISO_8859_1);
        List<Column> columns = columns(text);
        return line(text).stream()
                .flatMap(line -> line.fields().stream())
                .flatMap(field -> column(columns, field.at()).stream()
                        .map(column -> new Part(
                                field.channel(),
                                column.from(),
                                column.from() + column.text().length())))
                .toList();
    }

    @Override
    public Set<String> channels() {
        Set<String> names = new LinkedHashSet<>();
        messages.forEach(message -> message.fields().forEach(field -> names.add(field.channel())));
        return names;
    }

    /**
     * What stands between two separators.
     *
     * @param from where it begins in the line
     */
    private record Column(String text, int from) {}

    private List<Column> columns(String whole) {
        String line = separator.equals(" ") ? whole.replace('\t', ' ') : whole;
        List<Column> columns = new ArrayList<>();
        int from = 0;
        while (columns.size() < MOST_COLUMNS) {
            int end = line.indexOf(separator, from);
            if (end < 0) {
                columns.add(new Column(line.substring(from), from));
                break;
            }
            columns.add(new Column(line.substring(from, end), from));
            from = end + separator.length();
            while (separator.equals(" ") && from < line.length() && line.charAt(from) == ' ') {
                from++;
            }
        }
        return columns;
    }

    /** The text of a column of a line by these rules; empty if it has none such. */
    public static Optional<String> column(String line, String separator, int at) {
        List<Column> columns = new LineLayout(separator, List.of()).columns(line);
        return column(columns, Integer.toString(at)).map(Column::text).map(String::strip);
    }

    private static boolean isNumber(String at) {
        return at.matches("-?\\d{1,4}");
    }

    private static Optional<Column> column(List<Column> columns, String at) {
        if (isNumber(at)) {
            int index = Integer.parseInt(at);
            int place = index < 0 ? columns.size() + index : index;
            return place < 0 || place >= columns.size() ? Optional.empty() : Optional.of(columns.get(place));
        }
        return columns.stream().flatMap(column -> labelled(column, at).stream()).findFirst();
    }

    private static Optional<Column> labelled(Column column, String label) {
        String text = column.text().stripLeading();
        int blanks = column.text().length() - text.length();
        boolean fits = text.length() > label.length()
                && text.startsWith(label)
                && "=:".indexOf(text.charAt(label.length())) >= 0;
        return fits
                ? Optional.of(
                        new Column(text.substring(label.length() + 1), column.from() + blanks + label.length() + 1))
                : Optional.empty();
    }
}
