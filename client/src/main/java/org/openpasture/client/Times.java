package org.openpasture.client;

import java.time.Clock;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.openpasture.client.http.ApiClient;

/**
 * Times as people enter them: a date, a date with a time, {@code now}, {@code today}, {@code yesterday}, or how long
 * ago ({@code 7d} or {@code -7d}). Without an offset they are in the time zone of this machine.
 */
final class Times {
    private static final Pattern SPAN = Pattern.compile("-?(\\d{1,6})([smhdw])");

    private Times() {}

    /**
     * The moment that a text stands for.
     *
     * @throws IllegalArgumentException with examples if it cannot be read
     */
    static Instant read(String text) {
        return read(text, Clock.systemDefaultZone());
    }

    static Instant read(String text, Clock clock) {
        String word = text.strip().toLowerCase(Locale.ROOT);
        if (SPAN.matcher(word).matches()) {
            return clock.instant().minus(span(word));
        }
        ZoneId zone = clock.getZone();
        try {
            return switch (word) {
                case "now" -> clock.instant();
                case "today" -> LocalDate.now(clock).atStartOfDay(zone).toInstant();
                case "yesterday" ->
                    LocalDate.now(clock).minusDays(1).atStartOfDay(zone).toInstant();
                default -> written(text.strip().replace(' ', 'T').toUpperCase(Locale.ROOT), zone);
            };
        } catch (DateTimeException e) {
            throw new IllegalArgumentException(
                    "Cannot read '" + text
                            + "' as a time. Use 2026-03-01, 2026-03-01T08:00Z, yesterday, or a span such as 24h or 7d.",
                    e);
        }
    }

    /** A moment as a parameter behind others, such as {@code &from=2026-03-01T00:00:00Z}; nothing for null. */
    static String query(String name, @Nullable String when) {
        return ApiClient.query(name, when == null ? null : read(when).toString());
    }

    /**
     * How long a span such as 4h is.
     *
     * @throws IllegalArgumentException with examples if it cannot be read
     */
    static Duration span(String text) {
        Matcher span = SPAN.matcher(text.strip().toLowerCase(Locale.ROOT));
        if (!span.matches()) {
            throw new IllegalArgumentException("Cannot read '" + text + "' as a span. Use 30m, 4h or 7d.");
        }
        return unit(span.group(2)).multipliedBy(Long.parseLong(span.group(1)));
    }

    private static Duration unit(String letter) {
        return switch (letter) {
            case "s" -> Duration.ofSeconds(1);
            case "m" -> Duration.ofMinutes(1);
            case "h" -> Duration.ofHours(1);
            case "d" -> Duration.ofDays(1);
            default -> Duration.ofDays(7);
        };
    }

    private static Instant written(String text, ZoneId zone) {
        if (!text.contains("T")) {
            return LocalDate.parse(text).atStartOfDay(zone).toInstant();
        }
        boolean hasOffset = text.matches(".*(Z|[+-]\\d\\d(:?\\d\\d)?)$");
        return hasOffset
                ? OffsetDateTime.parse(text).toInstant()
                : LocalDateTime.parse(text).atZone(zone).toInstant();
    }
}
