package org.openpasture.core.inlet;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.openpasture.core.layout.JsonPath;

/**
 * Where in a message something stands that is said once: the address of its sender, its time, its payload. As text it
 * is one of {@code column:0}, {@code json:$.mac}, {@code bytes:1+4}, {@code topic:serial}, {@code header:x-device},
 * {@code sender}, {@code fixed:mast}.
 */
public sealed interface Locator {
    /** The text between two separators of a line, counted from 0, negative from the end. */
    record Column(int index) implements Locator {}

    /** A value of a JSON document. */
    record InJson(JsonPath path) implements Locator {}

    /** Bytes, as hex digits. */
    record Bytes(int from, int count) implements Locator {}

    /** The part of a topic that its pattern gives a name. */
    record OfTopic(String part) implements Locator {}

    /** A header of an HTTP request. */
    record Header(String name) implements Locator {}

    /** Whoever holds the connection: for a bridge with a single sensor behind it. */
    record Sender() implements Locator {}

    /** Always the same. */
    record Fixed(String text) implements Locator {}

    /** Where it is, read from its text. */
    @JsonCreator
    static Locator of(String text) {
        int colon = text.indexOf(':');
        String kind = (colon < 0 ? text : text.substring(0, colon)).strip().toLowerCase(Locale.ROOT);
        String rest = colon < 0 ? "" : text.substring(colon + 1).strip();
        return switch (kind) {
            case "column" -> new Column(number(rest, text));
            case "json" -> new InJson(JsonPath.of(rest));
            case "bytes" -> bytes(rest, text);
            case "topic" -> new OfTopic(named(rest, text));
            case "header" -> new Header(named(rest, text).toLowerCase(Locale.ROOT));
            case "sender" -> new Sender();
            case "fixed" -> new Fixed(named(rest, text));
            default -> throw wrong(text);
        };
    }

    private static int number(String rest, String text) {
        if (!rest.matches("-?\\d{1,4}")) {
            throw wrong(text);
        }
        return Integer.parseInt(rest);
    }

    private static Bytes bytes(String rest, String text) {
        Matcher matcher = Pattern.compile("(\\d{1,5})\\+(\\d{1,2})").matcher(rest);
        if (!matcher.matches()) {
            throw wrong(text);
        }
        return new Bytes(Integer.parseInt(matcher.group(1)), Integer.parseInt(matcher.group(2)));
    }

    private static String named(String rest, String text) {
        if (rest.isEmpty()) {
            throw wrong(text);
        }
        return rest;
    }

    private static IllegalArgumentException wrong(String text) {
        return new IllegalArgumentException("'" + text
                + "' tells no place in a message; there are column:0, json:$.mac, bytes:1+4, topic:serial, header:x-device, "
                + "sender, fixed:mast");
    }

    /** The text of it. */
    @JsonValue
    default String text() {
        return switch (this) {
            case Column(int index) -> "column:" + index;
            case InJson(JsonPath path) -> "json:" + path;
            case Bytes(int from, int count) -> "bytes:" + from + "+" + count;
            case OfTopic(String part) -> "topic:" + part;
            case Header(String name) -> "header:" + name;
            case Sender sender -> "sender";
            case Fixed(String fixed) -> "fixed:" + fixed;
        };
    }
}
