package org.openpasture.core.bacnet;

import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/**
 * What a controller says of itself and of those of its objects that have a number.
 *
 * @param device the instance of its device object
 */
public record Controller(int device, String name, String vendor, String model, List<Holds> objects) {
    private static final JsonMapper MAPPER = JsonMapper.builder().build();
    private static final int SHOWN = 6;

    public Controller {
        objects = List.copyOf(objects);
    }

    /**
     * An object.
     *
     * @param unit its number in the standard; null if it has none
     * @param value what it holds; null if that could not be read
     */
    public record Holds(
            ObjectId object,
            String name,
            @Nullable Integer unit,
            @Nullable Double value) {
        /** What it holds with its unit, for people. */
        String inWords() {
            String sign = unit == null
                    ? ""
                    : EngineeringUnit.of(unit).map(one -> " " + one.sign()).orElse("");
            return (name.isEmpty() ? object.text() : name)
                    + (value == null ? "" : " " + String.format(Locale.ROOT, "%.4g", value) + sign);
        }
    }

    /** The controller and the first of its objects, for people. */
    public String inWords() {
        String who = (name.isEmpty() ? "device " + device : name)
                + (vendor.isEmpty() ? "" : " (" + (vendor + " " + model).strip() + ")");
        if (objects.isEmpty()) {
            return who;
        }
        return who + ", " + objects.size() + (objects.size() == 1 ? " object: " : " objects: ")
                + objects.stream().limit(SHOWN).map(Holds::inWords).collect(Collectors.joining(", "))
                + (objects.size() > SHOWN ? ", …" : "");
    }

    public byte[] toBytes() {
        return MAPPER.writeValueAsBytes(this);
    }

    /**
     * The inverse.
     *
     * @throws IllegalArgumentException if the bytes are none
     */
    public static Controller of(byte[] bytes) {
        try {
            return MAPPER.readValue(bytes, Controller.class);
        } catch (JacksonException e) {
            throw new IllegalArgumentException("it is no description of a controller", e);
        }
    }
}
