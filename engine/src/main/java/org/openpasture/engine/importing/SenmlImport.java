package org.openpasture.engine.importing;

import java.io.IOException;
import java.io.InputStream;
import java.time.Clock;
import java.time.Instant;
import java.util.Map;
import java.util.OptionalDouble;
import org.openpasture.core.layout.JsonTrouble;
import org.openpasture.core.place.Point;
import org.openpasture.core.reading.PointReading;
import org.openpasture.core.senml.SenmlConversion;
import org.openpasture.core.senml.SenmlPack;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Reads a SenML pack in JSON (RFC 8428). Records without a number or a truth value, which are of no use here, are
 * refused one by one.
 */
public final class SenmlImport {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private final Map<String, String> points;
    private final Clock clock;
    private final SenmlPack pack = new SenmlPack();

    /** An import; names that are in the map are those of these points. */
    public SenmlImport(Map<String, String> points, Clock clock) {
        this.points = points;
        this.clock = clock;
    }

    public void read(InputStream in, ReadingTaker taker) throws IOException {
        try (JsonParser parser = JSON.createParser(in)) {
            if (parser.nextToken() != JsonToken.START_ARRAY) {
                throw new UnreadableFile("a SenML pack is a JSON array");
            }
            long number = 0;
            while (parser.nextToken() == JsonToken.START_OBJECT) {
                JsonNode entry = parser.readValueAsTree();
                number++;
                SenmlPack.refusalOf(entry).ifPresent(reason -> {
                    throw new UnreadableFile(reason);
                });
                SenmlPack.Resolved resolved = pack.next(entry);
                boolean onlyBase = !entry.has("n")
                        && !entry.has("v")
                        && !entry.has("vb")
                        && !entry.has("vs")
                        && !entry.has("vd")
                        && !entry.has("s");
                if (!onlyBase) {
                    taker.take(number, () -> reading(taker, entry, resolved));
                }
            }
            if (parser.currentToken() != JsonToken.END_ARRAY) {
                throw new UnreadableFile(
                        "a SenML pack holds objects only; after record " + number + " comes something else");
            }
        } catch (JacksonException e) {
            throw new UnreadableFile("the text is no JSON from here on: " + JsonTrouble.words(e));
        }
    }

    private PointReading reading(ReadingTaker taker, JsonNode entry, SenmlPack.Resolved resolved) {
        String name = resolved.name();
        Point point = taker.point(
                points.getOrDefault(name, name.startsWith("point-") ? name.substring("point-".length()) : name));
        Instant time = resolved.time(clock.instant())
                .orElseThrow(() -> new IllegalArgumentException(
                        "the time " + resolved.seconds() + " lies before 2000 or in the future"));
        double value;
        if (resolved.number() != null) {
            value = resolved.number();
        } else if (entry.path("vb").isBoolean()) {
            value = entry.path("vb").asBoolean() ? 1 : 0;
        } else {
            throw new IllegalArgumentException("'" + name + "' has no number and no truth value");
        }
        String unit = resolved.unit();
        if (unit == null || unit.equals(point.unit())) {
            return taker.reading(point, time, value, null);
        }
        OptionalDouble converted = SenmlConversion.convert(value, unit, point.unit());
        if (converted.isEmpty()) {
            throw new IllegalArgumentException("the value is in '" + unit + "', which cannot be converted to '"
                    + point.unit() + "', the unit of " + point.name());
        }
        return taker.reading(point, time, converted.getAsDouble(), null);
    }
}
