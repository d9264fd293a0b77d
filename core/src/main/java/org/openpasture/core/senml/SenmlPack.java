package org.openpasture.core.senml;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;

/**
 * A SenML pack in JSON (RFC 8428) while it is read: base fields hold for the records after them (section 4.1). One for
 * each pack, one thread at a time.
 */
public final class SenmlPack {
    private static final int NEWEST_VERSION = 10;
    private static final BigDecimal RELATIVE_BELOW = BigDecimal.valueOf(1L << 28);
    private static final BigDecimal BEYOND = BigDecimal.valueOf(1L << 40);
    private String baseName = "";
    private BigDecimal baseTime = BigDecimal.ZERO;
    private @Nullable String baseUnit;
    private double baseValue;

    /**
     * One record with the base fields taken in.
     *
     * @param seconds since 1970, or from now on where it is below 2^28 (section 4.5.3)
     * @param number null if it has none
     */
    public record Resolved(
            String name,
            BigDecimal seconds,
            @Nullable String unit,
            @Nullable Double number) {
        /** Its time; empty for one that lies beyond all that is of use. */
        public Optional<Instant> time(Instant now) {
            return seconds.abs().compareTo(BEYOND) > 0
                    ? Optional.empty()
                    : Optional.of(Instant.ofEpochMilli(seconds.movePointRight(3).longValue()
                            + (seconds.compareTo(RELATIVE_BELOW) < 0 ? now.toEpochMilli() : 0)));
        }
    }

    /**
     * Why a whole pack must not be processed (sections 4.4 and 4.5.2): it is of a later version, or holds a field that
     * has to be understood, whose name ends with an underscore. Empty if it may.
     */
    public static Optional<String> refusal(JsonNode records) {
        for (JsonNode record : records) {
            Optional<String> reason = refusalOf(record);
            if (reason.isPresent()) {
                return reason;
            }
        }
        return Optional.empty();
    }

    /** The same for one record. */
    public static Optional<String> refusalOf(JsonNode record) {
        if (record.path("bver").isNumber() && record.path("bver").asDouble() > NEWEST_VERSION) {
            return Optional.of(
                    "the pack is SenML of version " + record.path("bver").asString() + "; up to version "
                            + NEWEST_VERSION + " is understood (RFC 8428)");
        }
        return record.propertyNames().stream()
                .filter(name -> name.endsWith("_"))
                .findFirst()
                .map(name -> "the pack has the field '" + name
                        + "', which must be understood and is not (RFC 8428, section 4.4)");
    }

    /** Takes the next record. */
    public Resolved next(JsonNode entry) {
        baseName = entry.path("bn").isString() ? entry.path("bn").asString() : baseName;
        baseTime = number(entry, "bt").orElse(baseTime);
        baseUnit = entry.path("bu").isString() ? entry.path("bu").asString() : baseUnit;
        baseValue = entry.path("bv").isNumber() ? entry.path("bv").asDouble() : baseValue;
        return new Resolved(
                baseName + entry.path("n").asString(""),
                baseTime.add(number(entry, "t").orElse(BigDecimal.ZERO)),
                entry.path("u").isString() ? entry.path("u").asString() : baseUnit,
                entry.path("v").isNumber()
                        ? (Double) (baseValue + entry.path("v").asDouble())
                        : null);
    }

    private static Optional<BigDecimal> number(JsonNode entry, String name) {
        JsonNode number = entry.path(name);
        // What is too great for a number is no decimal either; it lies beyond all times.
        return !number.isNumber()
                ? Optional.empty()
                : Optional.of(Double.isFinite(number.asDouble()) ? number.decimalValue() : BEYOND.add(BEYOND));
    }
}
