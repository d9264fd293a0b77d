package org.openpasture.service.export;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.reading.TimeRange;
import org.openpasture.core.access.Access;
import org.openpasture.core.geo.Track;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.engine.export.AsciiWriter;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.util.HtmlUtils;
import tools.jackson.databind.json.JsonMapper;

/** Where something that moves has been, as GeoJSON (RFC 7946) or KML 2.3 (OGC 12-007r2), for maps. */
@RestController
class TrackController {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private final TelemetryStore telemetry;
    private final Reader reader;
    private final Clock clock;

    TrackController(TelemetryStore telemetry, Reader reader, Clock clock) {
        this.telemetry = telemetry;
        this.reader = reader;
        this.clock = clock;
    }

    /**
     * The positions of an asset that has a latitude and a longitude.
     *
     * @param value a point whose value goes with each position, and is its height in KML
     * @param from null for a day before {@code until}
     * @param until null for now
     * @param format geojson or kml
     */
    @GetMapping("/api/v1/places/{id}/track")
    void track(
            @PathVariable String id,
            @RequestParam(required = false) @Nullable String value,
            @RequestParam(required = false) @Nullable Instant from,
            @RequestParam(required = false) @Nullable Instant until,
            @RequestParam(defaultValue = "geojson") String format,
            HttpServletResponse response)
            throws IOException {
        Access access = reader.access();
        Place place = reader.place(id);
        Point shown = value == null ? null : reader.point(value);
        Track track = new Track(
                telemetry.series(),
                point(access, place, Quantity.LATITUDE).number(),
                point(access, place, Quantity.LONGITUDE).number(),
                shown == null ? -1 : shown.number());
        TimeRange range = TimeRange.of(from, until, clock.instant(), Duration.ofDays(1));
        boolean kml = format.equals("kml");
        if (!kml && !format.equals("geojson")) {
            throw Problem.invalid("no format '" + format + "'; there are geojson, kml");
        }
        response.setContentType(kml ? "application/vnd.google-earth.kml+xml" : "application/geo+json");
        response.setHeader("Content-Disposition", "attachment; filename=\"track." + format + "\"");
        String name = shown == null
                ? place.name()
                : place.name() + ", " + shown.name() + (shown.unit().isEmpty() ? "" : " (" + shown.unit() + ")");
        if (kml) {
            writeKml(track, name, range, response.getOutputStream());
        } else {
            writeGeoJson(track, name, shown, range, response.getOutputStream());
        }
    }

    private static Point point(Access access, Place place, Quantity quantity) {
        return access.registry().pointsOf(place.id()).stream()
                .filter(point -> point.quantity() == quantity && access.maySee(point))
                .findFirst()
                .orElseThrow(() -> Problem.invalid(place.name() + " has no " + quantity.title()
                        + ": give it points of the quantities latitude and longitude"));
    }

    /** A feature for each position, with its time and value. */
    private static void writeGeoJson(Track track, String name, @Nullable Point shown, TimeRange range, OutputStream to)
            throws IOException {
        AsciiWriter out = new AsciiWriter(to);
        out.put("{\"type\":\"FeatureCollection\",\"name\":" + JSON.writeValueAsString(name) + ",\"features\":[");
        boolean[] any = {false};
        String unit = shown == null ? "" : ",\"unit\":" + JSON.writeValueAsString(shown.unit());
        writing(() -> track.read(
                range.from(),
                range.until(),
                position -> quietly(() -> {
                    out.put(any[0] ? ",\n" : "\n")
                            .put("{\"type\":\"Feature\",\"geometry\":{\"type\":\"Point\",\"coordinates\":[")
                            .number(position.longitude())
                            .put(',')
                            .number(position.latitude())
                            .put("]},\"properties\":{\"time\":\"")
                            .put(position.time().toString())
                            .put("\"");
                    if (!Double.isNaN(position.value())) {
                        out.put(",\"value\":").number(position.value()).put(unit);
                    }
                    out.put("}}");
                    any[0] = true;
                })));
        out.put("]}\n");
        out.flush();
    }

    /** One track whose height above the ground is the value, so that it is seen from the side. */
    private static void writeKml(Track track, String name, TimeRange range, OutputStream to) throws IOException {
        AsciiWriter out = new AsciiWriter(to);
        out.put(
                "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<kml xmlns=\"http://www.opengis.net/kml/2.3\" version=\"2.3\"><Document><Placemark><name>"
                        + HtmlUtils.htmlEscapeDecimal(inXml(name), "UTF-8")
                        + "</name><Track><extrude>1</extrude><altitudeMode>relativeToGround</altitudeMode>\n");
        // All times come before all places; as many of these as of those, also if a reading comes in between.
        long[] left = {0};
        writing(() -> track.read(
                range.from(),
                range.until(),
                position -> quietly(() -> {
                    out.put("<when>").put(position.time().toString()).put("</when>\n");
                    left[0]++;
                })));
        writing(() -> track.read(
                range.from(),
                range.until(),
                position -> quietly(() -> {
                    if (left[0]-- <= 0) {
                        return;
                    }
                    out.put("<coord>")
                            .number(position.longitude())
                            .put(' ')
                            .number(position.latitude())
                            .put(' ')
                            .number(Double.isNaN(position.value()) ? 0 : position.value())
                            .put("</coord>\n");
                })));
        out.put("</Track></Placemark></Document></kml>\n");
        out.flush();
    }

    /** Without what no XML may hold (XML 1.0, 2.2), which names from before they were checked may have. */
    private static String inXml(String text) {
        return text.replaceAll("[^\\t\\n\\r\\x20-\\uD7FF\\uE000-\\uFFFD\\x{10000}-\\x{10FFFF}]", "");
    }

    private interface Writing {
        void run() throws IOException;
    }

    private static void quietly(Writing part) {
        try {
            part.run();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static void writing(Writing part) throws IOException {
        try {
            part.run();
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }
}
