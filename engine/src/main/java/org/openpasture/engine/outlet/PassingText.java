package org.openpasture.engine.outlet;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.judging.Effect;
import org.openpasture.core.outlet.Outlet;
import org.openpasture.core.place.Point;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Paths;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.senml.SenmlUnit;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** How readings and alerts are written when they are passed on. */
final class PassingText {
    private static final JsonMapper MAPPER = JsonMapper.builder().build();

    private PassingText() {}

    /** A reading and its point. */
    record Of(Point point, Reading reading) {}

    /** Readings as an array: objects with names and units, or a SenML pack, in which bad ones are left out. */
    static String readings(Registry now, Outlet.Form form, List<Of> readings) {
        ArrayNode all = MAPPER.createArrayNode();
        for (Of of : readings) {
            switch (form) {
                case JSON ->
                    all.addObject()
                            .put("pointId", of.point().id())
                            .put("point", of.point().name())
                            .put(
                                    "place",
                                    String.join(
                                            " / ", Paths.down(now, of.point().placeId())))
                            .put("time", of.reading().time().toString())
                            .put("value", of.reading().value())
                            .put("unit", of.point().unit())
                            .put("quality", of.reading().quality().name().toLowerCase(Locale.ROOT));
                case SENML -> {
                    if (of.reading().quality() != Quality.BAD) {
                        SenmlUnit unit =
                                SenmlUnit.of(of.point().quantity(), of.point().unit());
                        ObjectNode record = all.addObject()
                                .put("n", "point-" + of.point().number())
                                .put("t", BigDecimal.valueOf(of.reading().time().toEpochMilli(), 3));
                        if (!unit.senml().isEmpty()) {
                            record.put("u", unit.senml());
                        }
                        record.put("v", unit.toSenml(of.reading().value()));
                    }
                }
            }
        }
        return MAPPER.writeValueAsString(all);
    }

    /** Several arrays as one. */
    static String together(List<String> arrays) {
        return arrays.stream()
                .map(array -> array.substring(1, array.length() - 1))
                .filter(inside -> !inside.isBlank())
                .collect(Collectors.joining(",", "[", "]"));
    }

    /** What happened to an alert; empty for what is only on its way to become one. */
    static Optional<String> alert(Registry now, Alert alert, Effect effect) {
        ObjectNode body = MAPPER.createObjectNode()
                .put("alertId", alert.id())
                .put("rule", alert.ruleName())
                .put("severity", alert.severity().id())
                .put("place", String.join(" / ", Paths.down(now, alert.placeId())))
                .put("pointId", alert.pointId())
                .put("summary", alert.summary())
                .put("unit", alert.unit())
                .put("startedAt", alert.startedAt().toString());
        if (alert.value() != null) {
            body.put("value", alert.value());
        }
        switch (effect) {
            case Effect.Raised raised -> happened(body, "raised", alert.raisedAt());
            case Effect.RaisedShelved(var as, var shelf) ->
                happened(body, "raised", as.raisedAt()).put("shelved", true);
            case Effect.Shelved(var id, var at, var shelf) -> {
                happened(body, "shelved", at).put("person", shelf.person()).put("reason", shelf.reason());
                Instant until = shelf.until();
                if (until != null) {
                    body.put("until", until.toString());
                }
            }
            case Effect.Unshelved(var id, var at, var person) ->
                happened(body, "unshelved", at).put("person", person);
            case Effect.Worsened(var at, var as) -> happened(body, "worsened", at);
            case Effect.Eased(var id, var at, var severity, var value) -> happened(body, "eased", at);
            case Effect.Acknowledged(var id, var at, var person, var note) ->
                happened(body, "acknowledged", at).put("person", person).put("note", note);
            case Effect.Returned(var id, var at, var value) -> {
                happened(body, "returned", at);
                if (value != null) {
                    body.put("value", value);
                }
            }
            case Effect.Recurred(var id, var at) -> happened(body, "recurred", at);
            case Effect.Latched(var id, var at) -> happened(body, "latched", at);
            case Effect.Closed(var id, var at) -> happened(body, "closed", at);
            case Effect.Delayed delayed -> {
                return Optional.empty();
            }
            case Effect.Settled settled -> {
                return Optional.empty();
            }
        }
        return Optional.of(MAPPER.writeValueAsString(body));
    }

    private static ObjectNode happened(ObjectNode body, String state, Instant at) {
        return body.put("state", state).put("at", at.toString());
    }

    /** The name of a point as it stands in a topic: its place and its name, in small letters, digits and dashes. */
    static String topicOf(Registry now, Point point) {
        return (String.join("/", Paths.down(now, point.placeId())) + "/" + point.name())
                .toLowerCase(Locale.ROOT)
                .replaceAll("[^a-z0-9/]+", "-")
                .replaceAll("-?/-?", "/");
    }

    /** That this service lives. */
    static String lifeSign(String outlet, Instant at) {
        return MAPPER.createObjectNode()
                .put("kind", "life-sign")
                .put("outlet", outlet)
                .put("alive", 1)
                .put("at", at.toString())
                .toString();
    }
}
