package org.openpasture.core.fleet;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.openpasture.core.advert.Advert;
import org.openpasture.core.bacnet.Controller;
import org.openpasture.core.bacnet.EngineeringUnit;
import org.openpasture.core.bacnet.ObjectId;
import org.openpasture.core.bacnet.ObjectType;
import org.openpasture.core.layout.AdvertLayout;
import org.openpasture.core.layout.ChannelValue;
import org.openpasture.core.layout.Decoding;
import org.openpasture.core.layout.Field;
import org.openpasture.core.layout.FieldType;
import org.openpasture.core.layout.JsonLayout;
import org.openpasture.core.layout.Layout;
import org.openpasture.core.layout.LineLayout;
import org.openpasture.core.layout.ObjectField;
import org.openpasture.core.layout.ObjectImage;
import org.openpasture.core.layout.ObjectLayout;
import org.openpasture.core.layout.TextField;
import org.openpasture.core.quantity.Quantity;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * How a device model could read a message of which nobody said yet what is in it: each number that is seen becomes a
 * channel. People strike out what they do not want, and give the rest its meaning.
 *
 * @param values what the layout reads from the message
 */
public record Proposal(Layout layout, List<Channel> channels, List<ChannelValue> values) {
    private static final JsonMapper MAPPER = JsonMapper.builder().build();
    private static final int MOST_CHANNELS = 60;
    private static final List<String> SEPARATORS = List.of(";", "|", "\t", ",", " ");
    /** The beginning of a part of a name, and what is meant by it most likely. */
    private static final List<Map.Entry<String, Quantity>> NAMES = List.of(
            Map.entry("temp", Quantity.TEMPERATURE),
            Map.entry("hum", Quantity.HUMIDITY),
            Map.entry("rh", Quantity.HUMIDITY),
            Map.entry("co2", Quantity.CARBON_DIOXIDE),
            Map.entry("co", Quantity.CARBON_MONOXIDE),
            Map.entry("nh3", Quantity.AMMONIA),
            Map.entry("ammonia", Quantity.AMMONIA),
            Map.entry("level", Quantity.LEVEL),
            Map.entry("bat", Quantity.VOLTAGE),
            Map.entry("volt", Quantity.VOLTAGE),
            Map.entry("wind", Quantity.WIND_SPEED),
            Map.entry("rain", Quantity.RAINFALL),
            Map.entry("soil", Quantity.SOIL_MOISTURE),
            Map.entry("flow", Quantity.FLOW),
            Map.entry("power", Quantity.POWER),
            Map.entry("energy", Quantity.ENERGY),
            Map.entry("freq", Quantity.FREQUENCY),
            Map.entry("lat", Quantity.LATITUDE),
            Map.entry("lon", Quantity.LONGITUDE),
            Map.entry("lng", Quantity.LONGITUDE),
            Map.entry("rssi", Quantity.SIGNAL),
            Map.entry("door", Quantity.SWITCH));

    public Proposal {
        channels = List.copyOf(channels);
        values = List.copyOf(values);
    }

    /** What could be read of a payload; empty where no number is seen. */
    public static Optional<Proposal> of(byte[] payload) {
        return json(payload).or(() -> isText(payload) ? line(payload) : advert(payload));
    }

    /** What could be read of a controller: each of its objects that holds a number, in our units. */
    public static Optional<Proposal> of(Controller controller) {
        List<ObjectField> fields = new ArrayList<>();
        List<Channel> channels = new ArrayList<>();
        for (Controller.Holds one :
                controller.objects().stream().limit(MOST_CHANNELS).toList()) {
            String name = unique(
                    channelName(one.name().isBlank() ? one.object().text() : one.name()),
                    channels.stream().map(Channel::name).toList());
            Optional<EngineeringUnit> unit = Optional.ofNullable(one.unit()).flatMap(EngineeringUnit::of);
            Double factor =
                    unit.map(EngineeringUnit::factor).filter(by -> by != 1).orElse(null);
            boolean binary =
                    one.object().usualType().filter(ObjectType::isBinary).isPresent();
            Channel guessed = channel(name);
            Quantity quantity = binary
                    ? Quantity.SWITCH
                    : guessed.quantity() != Quantity.OTHER
                                    && unit.filter(of -> of.sign()
                                                    .equals(guessed.quantity().unit()))
                                            .isPresent()
                            ? guessed.quantity()
                            : unit.map(EngineeringUnit::quantity).orElse(guessed.quantity());
            fields.add(new ObjectField(name, one.object(), factor, null, null, null, null, null, null));
            channels.add(Channel.of(
                    name,
                    one.name().isBlank() ? guessed.title() : one.name(),
                    quantity,
                    quantity == Quantity.OTHER ? unit.map(EngineeringUnit::sign).orElse("") : quantity.unit()));
        }
        if (fields.isEmpty()) {
            return Optional.empty();
        }
        ObjectLayout layout = new ObjectLayout(fields);
        Map<ObjectId, Double> held = new LinkedHashMap<>();
        controller.objects().forEach(one -> Optional.ofNullable(one.value())
                .ifPresent(value -> held.put(one.object(), value)));
        return Optional.of(new Proposal(
                layout,
                channels,
                layout.decode(0, new ObjectImage(held).toBytes()) instanceof Decoding.Decoded decoded
                        ? decoded.values()
                        : List.of()));
    }

    private static Optional<Proposal> json(byte[] payload) {
        try {
            JsonNode document = MAPPER.readTree(payload);
            if (!document.isContainer()) {
                return Optional.empty();
            }
            List<TextField> fields = new ArrayList<>();
            collect(document, "$", "", fields);
            return proposed(new JsonLayout(distinct(fields)), payload);
        } catch (JacksonException e) {
            return Optional.empty();
        }
    }

    private static void collect(JsonNode node, String path, String name, List<TextField> into) {
        if (node.isObject()) {
            node.properties().forEach(entry -> step(entry.getKey())
                    .ifPresent(step -> collect(entry.getValue(), path + step, entry.getKey(), into)));
        } else if (node.isArray()) {
            for (int i = 0; i < node.size(); i++) {
                collect(node.get(i), path + "[" + i + "]", name + (i + 1), into);
            }
        } else if ((node.isNumber() || node.isBoolean()) && into.size() < MOST_CHANNELS) {
            into.add(TextField.of(channelName(name), path));
        }
    }

    /** The step of a path to a member; empty for a name with both kinds of quotes, which no path can say. */
    private static Optional<String> step(String name) {
        if (name.matches("[A-Za-z0-9_-]+")) {
            return Optional.of("." + name);
        }
        return !name.contains("'")
                ? Optional.of("['" + name + "']")
                : !name.contains("\"") ? Optional.of("[\"" + name + "\"]") : Optional.empty();
    }

    private static String channelName(String name) {
        String plain =
                name.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "_").replaceAll("^_|_$", "");
        return plain.isEmpty() ? "value" : plain;
    }

    private static List<TextField> distinct(List<TextField> fields) {
        List<TextField> result = new ArrayList<>();
        fields.forEach(field -> result.add(TextField.of(
                unique(field.channel(), result.stream().map(TextField::channel).toList()), field.at())));
        return result;
    }

    /** The name, with a number after it if it is taken. */
    private static String unique(String name, List<String> taken) {
        String free = name;
        for (int again = 2; taken.contains(free); again++) {
            free = name + "_" + again;
        }
        return free;
    }

    private static boolean isText(byte[] payload) {
        for (byte one : payload) {
            if (one >= 0 && one < 0x20 && one != '\t' && one != '\r' && one != '\n') {
                return false;
            }
        }
        return payload.length > 0 && !new String(payload, StandardCharsets.UTF_8).contains("\uFFFD");
    }

    /** The separator that gives the most numbers is taken. */
    private static Optional<Proposal> line(byte[] payload) {
        return SEPARATORS.stream()
                .flatMap(separator -> line(payload, separator).stream())
                .max(Comparator.comparingInt(one -> one.channels().size()));
    }

    private static Optional<Proposal> line(byte[] payload, String separator) {
        String text = new String(payload, StandardCharsets.UTF_8).strip();
        List<TextField> fields = new ArrayList<>();
        for (int column = 0; column < MOST_CHANNELS; column++) {
            Optional<String> cell = LineLayout.column(text, separator, column);
            if (cell.isEmpty()) {
                break;
            }
            String[] labelled = cell.get().split("[=:]", 2);
            boolean hasLabel = labelled.length == 2 && labelled[0].strip().matches("[A-Za-z][A-Za-z0-9_ -]{0,20}");
            TextField field = hasLabel
                    ? TextField.of(channelName(labelled[0]), labelled[0].strip())
                    : TextField.of("value_" + column, Integer.toString(column));
            if (LineLayout.of(separator, field).decode(0, payload) instanceof Decoding.Decoded decoded
                    && !decoded.values().isEmpty()) {
                fields.add(field);
            }
        }
        return fields.isEmpty()
                ? Optional.empty()
                : proposed(LineLayout.of(separator, distinct(fields).toArray(TextField[]::new)), payload);
    }

    /** What numbers of an advert mean is not seen: each byte of its data is shown by itself. */
    private static Optional<Proposal> advert(byte[] payload) {
        try {
            List<AdvertLayout.Section> sections = Advert.of(payload).structures().stream()
                    .filter(one -> (one.type() == Advert.MANUFACTURER_DATA || one.type() == Advert.SERVICE_DATA_16)
                            && one.content().length > 0)
                    .map(one -> new AdvertLayout.Section(
                            (one.type() == Advert.MANUFACTURER_DATA ? "company:" : "service:")
                                    + String.format(Locale.ROOT, "%04x", one.id()),
                            bytes(one.content().length)))
                    .toList();
            return sections.isEmpty() ? Optional.empty() : proposed(new AdvertLayout(sections), payload);
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    private static List<Field> bytes(int count) {
        List<Field> fields = new ArrayList<>();
        for (int at = 0; at < Math.min(count, MOST_CHANNELS); at++) {
            fields.add(Field.of("byte_" + at, at, FieldType.U8));
        }
        return fields;
    }

    private static Optional<Proposal> proposed(Layout layout, byte[] payload) {
        if (!(layout.decode(0, payload) instanceof Decoding.Decoded decoded)
                || decoded.values().isEmpty()) {
            return Optional.empty();
        }
        return Optional.of(new Proposal(
                layout, layout.channels().stream().map(Proposal::channel).toList(), decoded.values()));
    }

    private static Channel channel(String name) {
        Quantity quantity = NAMES.stream()
                .filter(entry -> Arrays.stream(name.split("_")).anyMatch(part -> part.startsWith(entry.getKey())))
                .map(Map.Entry::getValue)
                .findFirst()
                .orElse(Quantity.OTHER);
        String title = name.replace('_', ' ');
        return Channel.of(name, Character.toUpperCase(title.charAt(0)) + title.substring(1), quantity, quantity.unit());
    }
}
