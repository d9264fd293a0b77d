package org.openpasture.service.importing;

import java.io.IOException;
import java.io.InputStream;
import java.math.BigDecimal;
import java.time.Clock;
import java.time.Instant;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.place.Point;
import org.openpasture.core.reading.PointReading;
import org.openpasture.service.export.SenmlUnit;
import org.openpasture.service.problem.Problem;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Reads a SenML pack in JSON (RFC 8428): base fields hold for what follows them (section 4.1); a time below 2^28 is
 * relative to now (section 4.5.3). Records without a number or a truth value, which are of no use here, are refused one by one.
 */
final class SenmlImport {
  private static final BigDecimal RELATIVE_BELOW = BigDecimal.valueOf(1L << 28);
  private static final JsonMapper JSON = JsonMapper.builder().build();
  private final Map<String, String> points;
  private final Clock clock;
  private String baseName = "";
  private BigDecimal baseTime = BigDecimal.ZERO;
  private @Nullable String baseUnit;
  private double baseValue;

  /** An import; names that are in the map are those of these points. */
  SenmlImport(Map<String, String> points, Clock clock) {
    this.points = points;
    this.clock = clock;
  }

  void read(InputStream in, ReadingTaker taker) throws IOException {
    try (JsonParser parser = JSON.createParser(in)) {
      if (parser.nextToken() != JsonToken.START_ARRAY) {
        throw Problem.invalid("a SenML pack is a JSON array");
      }
      long number = 0;
      while (parser.nextToken() == JsonToken.START_OBJECT) {
        JsonNode entry = parser.readValueAsTree();
        number++;
        base(entry);
        boolean onlyBase = !entry.has("n") && !entry.has("v") && !entry.has("vb") && !entry.has("vs") && !entry.has("vd") && !entry.has("s");
        if (!onlyBase) {
          taker.take(number, () -> reading(taker, entry));
        }
      }
      if (parser.currentToken() != JsonToken.END_ARRAY) {
        throw Problem.invalid("a SenML pack holds objects only; after record " + number + " comes something else");
      }
    } catch (JacksonException e) {
      throw Problem.invalid("the text is no JSON from here on: " + e.getOriginalMessage());
    }
  }

  private void base(JsonNode entry) {
    baseName = entry.path("bn").isString() ? entry.path("bn").asString() : baseName;
    baseTime = entry.path("bt").isNumber() ? entry.path("bt").decimalValue() : baseTime;
    baseUnit = entry.path("bu").isString() ? entry.path("bu").asString() : baseUnit;
    baseValue = entry.path("bv").isNumber() ? entry.path("bv").asDouble() : baseValue;
  }

  private PointReading reading(ReadingTaker taker, JsonNode entry) {
    String name = baseName + entry.path("n").asString("");
    Point point = taker.point(points.getOrDefault(name, name.startsWith("point-") ? name.substring("point-".length()) : name));
    BigDecimal seconds = baseTime.add(entry.path("t").isNumber() ? entry.path("t").decimalValue() : BigDecimal.ZERO);
    if (seconds.abs().compareTo(BigDecimal.valueOf(1L << 40)) > 0) {
      throw new IllegalArgumentException("the time " + seconds + " lies before 2000 or in the future");
    }
    long millis = seconds.movePointRight(3).longValue() + (seconds.compareTo(RELATIVE_BELOW) < 0 ? clock.millis() : 0);
    double value;
    if (entry.path("v").isNumber()) {
      value = baseValue + entry.path("v").asDouble();
    } else if (entry.path("vb").isBoolean()) {
      value = entry.path("vb").asBoolean() ? 1 : 0;
    } else {
      throw new IllegalArgumentException("'" + name + "' has no number and no truth value");
    }
    String unit = entry.path("u").isString() ? entry.path("u").asString() : baseUnit;
    SenmlUnit known = SenmlUnit.of(point.unit());
    if (unit != null && !unit.equals(known.senml()) && !unit.equals(point.unit())) {
      throw new IllegalArgumentException("the value is in '" + unit + "', but " + point.name() + " is kept in '" + point.unit() + "'");
    }
    return taker.reading(point, Instant.ofEpochMilli(millis), unit != null && unit.equals(known.senml()) ? known.fromSenml(value) : value, null);
  }
}
