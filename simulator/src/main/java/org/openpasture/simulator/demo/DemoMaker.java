package org.openpasture.simulator.demo;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.openpasture.api.fleet.DeviceRequest;
import org.openpasture.api.place.PlaceView;
import org.openpasture.api.place.PointRequest;
import org.openpasture.api.place.PointView;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.formula.Formula;
import org.openpasture.core.formula.Recipe;
import org.openpasture.core.lorawan.Eui64;
import org.openpasture.core.quantity.Quantity;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Makes places, models and points over the public interface, and remembers points by short names. */
class DemoMaker {
    final ApiClient api;
    private final JsonMapper mapper = JsonMapper.builder().build();
    private final Map<String, String> pointIds = new HashMap<>();
    private final Map<String, Integer> pointNumbers = new HashMap<>();

    DemoMaker(ApiClient api) {
        this.api = api;
    }

    /** Point numbers by a short name such as "pump-axial". */
    Map<String, Integer> pointNumbers() {
        return pointNumbers;
    }

    String place(String path, Object request) {
        return api.post("api/v1/" + path, request, PlaceView.class).id();
    }

    /** Brings a radio sender in, with a point for each of its channels. */
    void joining(Sender sender, String model, String place) {
        api.post(
                "api/v1/devices",
                DeviceRequest.joining(
                        sender.name(),
                        model,
                        place,
                        Eui64.of(sender.eui()),
                        Eui64.of(Creamery.JOIN_EUI),
                        sender.key(),
                        true));
    }

    String model(String file) {
        return made("api/v1/models", file);
    }

    String limits(String file) {
        return made("api/v1/limits", file);
    }

    private String made(String path, String file) {
        return api.post(path, read(file)).path("id").asString();
    }

    /** A file beside the demo's classes, as JSON. */
    JsonNode read(String file) {
        try (InputStream in = DemoMaker.class.getResourceAsStream(file)) {
            return mapper.readTree(Optional.ofNullable(in).orElseThrow().readAllBytes());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Releases the points of a place and remembers them under short names. */
    void points(String place, Map<String, String> shortNames) {
        for (PointView point : api.get("api/v1/points?place=" + place, PointView[].class)) {
            if (point.formula() != null) {
                // The mean of another for its limits, which is released with it.
                continue;
            }
            String shortName = Optional.ofNullable(shortNames.get(point.name())).orElseThrow();
            pointIds.put(shortName, point.id());
            pointNumbers.put(shortName, point.number());
            api.post("api/v1/points/" + point.id() + "/release", Map.of());
        }
    }

    /** A released point that follows from others by a prepared formula. */
    void derived(String place, String name, Recipe recipe, Map<String, String> inputs, Map<String, Double> parameters) {
        Map<String, String> ids = new HashMap<>();
        inputs.forEach((input, shortName) -> ids.put(input, id(shortName)));
        api.post(
                "api/v1/points",
                new PointRequest(
                        name,
                        place,
                        recipe.results().getFirst(),
                        null,
                        null,
                        null,
                        null,
                        true,
                        new Formula.Prepared(recipe, ids, parameters, null),
                        null));
    }

    /** A released point that follows from others by a formula that is written out. */
    void written(String place, String name, Quantity quantity, String formula, Map<String, String> inputs) {
        Map<String, String> ids = new HashMap<>();
        inputs.forEach((input, shortName) -> ids.put(input, id(shortName)));
        api.post(
                "api/v1/points",
                new PointRequest(
                        name,
                        place,
                        quantity,
                        null,
                        null,
                        null,
                        null,
                        true,
                        new Formula.Written(formula, ids, null, null),
                        null));
    }

    String id(String shortName) {
        return Optional.ofNullable(pointIds.get(shortName)).orElseThrow();
    }
}
