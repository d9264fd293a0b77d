package org.openpasture.client.output;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.stream.Collectors;
import tools.jackson.databind.JsonNode;

/** Small things in words. */
public final class Words {
    private static final DateTimeFormatter CLOCK =
            DateTimeFormatter.ofPattern("HH:mm:ss", Locale.ROOT).withZone(ZoneId.systemDefault());
    private static final DateTimeFormatter DAY =
            DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm", Locale.ROOT).withZone(ZoneId.systemDefault());

    private Words() {}

    /** "12 s ago", "never". */
    public static String age(JsonNode time, Instant now) {
        if (!time.isString()) {
            return "never";
        }
        long seconds = Math.max(
                0, Duration.between(Instant.parse(time.asString()), now).toSeconds());
        return seconds < 90
                ? seconds + " s ago"
                : seconds < 5400
                        ? (seconds + 30) / 60 + " min ago"
                        : seconds < 172_800
                                ? (seconds + 1800) / 3600 + " h ago"
                                : (seconds + 43_200) / 86_400 + " d ago";
    }

    public static String clock(JsonNode time) {
        return time.isString() ? CLOCK.format(Instant.parse(time.asString())) : "";
    }

    public static String moment(JsonNode time) {
        return time.isString() ? DAY.format(Instant.parse(time.asString())) : "";
    }

    /** A number with so many decimals, nothing for none. */
    public static String number(JsonNode value, int decimals) {
        return value.isNumber() ? String.format(Locale.ROOT, "%." + decimals + "f", value.asDouble()) : "";
    }

    /** A value of a point: the word that stands for it, or the number with its unit. */
    public static String value(JsonNode point, JsonNode value) {
        return point.path("words")
                .propertyStream()
                .filter(word -> Double.parseDouble(word.getKey()) == value.asDouble())
                .map(word -> word.getValue().asString())
                .findFirst()
                .orElseGet(
                        () -> (figure(point, value) + " " + point.path("unit").asString("")).strip());
    }

    /** A value of a point without its unit, as the reader reads it; nothing for none. */
    public static String figure(JsonNode point, JsonNode value) {
        return value.isNumber()
                ? String.format(
                        Locale.ROOT,
                        "%." + point.path("decimals").asInt(2) + "f",
                        ReadUnits.value(point, value.asDouble()))
                : "";
    }

    /** A number with its unit, nothing for none. */
    public static String amount(JsonNode value, int decimals, String unit) {
        return value.isNumber() ? number(value, decimals) + " " + unit : "";
    }

    /** Texts one after the other: "a, b". */
    public static String list(JsonNode texts) {
        return texts.valueStream().map(JsonNode::asString).collect(Collectors.joining(", "));
    }

    /** "1 frame", "2 frames". */
    public static String count(long number, String one) {
        return number + " " + one + (number == 1 ? "" : "s");
    }

    /** Our fence mark of a severity, with its word. */
    public static String severity(JsonNode severity) {
        return switch (severity.asString("")) {
            case "normal" -> "| | normal";
            case "advisory" -> "|-| advisory";
            case "warning" -> "|=| warning";
            case "critical" -> "|#| critical";
            default -> "no limits";
        };
    }

    /** An amount of data as people say it. */
    public static String bytes(long bytes) {
        return bytes < 10_000
                ? bytes + " B"
                : bytes < 10_000_000
                        ? bytes / 1_000 + " kB"
                        : bytes < 10_000_000_000L
                                ? bytes / 1_000_000 + " MB"
                                : String.format(Locale.ROOT, "%.1f GB", bytes / 1e9);
    }

    /** A span of time in its two largest units. */
    public static String duration(long seconds) {
        return seconds < 60
                ? seconds + " s"
                : seconds < 3_600
                        ? seconds / 60 + " min"
                        : seconds < 86_400
                                ? seconds / 3_600 + " h " + seconds / 60 % 60 + " min"
                                : seconds / 86_400 + " d " + seconds / 3_600 % 24 + " h";
    }
}
