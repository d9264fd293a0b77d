package org.openpasture.core.inlet;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.layout.JsonTrouble;
import org.openpasture.core.layout.LineLayout;
import org.openpasture.core.senml.SenmlPack;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** Opens messages: finds whose they are, and what in them is for the device's model. */
public final class Opener {
    private static final JsonMapper MAPPER = JsonMapper.builder().build();
    private static final int LONGEST_ADDRESS = 120;
    /** How many parts one message may have; it is taken whole or refused whole. */
    public static final int MOST_ITEMS = 50_000;
    /** Numbers above are milliseconds since 1970: as seconds they would be after the year 5000. */
    private static final double MILLIS_FROM = 1e11;

    private static final double NANOS_FROM = 1e17;

    private Opener() {}

    /**
     * Opens a message; {@value #MOST_ITEMS} items at most, none if a list that it should have is empty.
     *
     * @param now from which times count that are told from now on
     */
    public static List<Item> open(Contents contents, Arrived message, Instant now) {
        List<Item> items =
                switch (contents.form()) {
                    case TEXT, BYTES -> List.of(item(contents, message, message.bytes(), null));
                    case JSON -> json(contents, message);
                    case CBOR ->
                        ofCbor(message, false)
                                .map(json -> json(contents, json))
                                .orElseGet(() -> List.of(new Item.Refused(message.bytes(), "it is no CBOR")));
                    case CSV -> csv(contents, message);
                    case SENML ->
                        Cbor.isOne(message.bytes())
                                ? ofCbor(message, true)
                                        .map(json -> senml(json, now))
                                        .orElseGet(() -> List.of(new Item.Refused(message.bytes(), "it is no CBOR")))
                                : senml(message, now);
                };
        return items.size() <= MOST_ITEMS
                ? items
                : List.of(new Item.Refused(
                        message.bytes(),
                        "the message has more than " + MOST_ITEMS + " parts; send it in several messages"));
    }

    private static Optional<Arrived> ofCbor(Arrived message, boolean senml) {
        try {
            return Optional.of(new Arrived(
                    senml ? Cbor.senmlToJson(message.bytes()) : Cbor.toJson(message.bytes()),
                    message.sender(),
                    message.names()));
        } catch (JacksonException e) {
            return Optional.empty();
        }
    }

    private static List<Item> json(Contents contents, Arrived message) {
        JsonNode document;
        try {
            document = MAPPER.readTree(message.bytes());
        } catch (JacksonException e) {
            return List.of(notJson(message, e));
        }
        if (contents.each() == null) {
            return List.of(item(contents, message, message.bytes(), document));
        }
        List<JsonNode> parts = contents.each().find(document);
        return parts.isEmpty()
                ? contents.each().isEmptyList(document)
                        ? List.of()
                        : List.of(new Item.Refused(message.bytes(), "nothing in it lies at " + contents.each()))
                : parts.stream()
                        .map(part -> item(contents, message, MAPPER.writeValueAsBytes(part), part))
                        .toList();
    }

    private static Item.Refused notJson(Arrived message, JacksonException e) {
        return new Item.Refused(message.bytes(), "it is no JSON: " + JsonTrouble.words(e));
    }

    private static List<Item> csv(Contents contents, Arrived message) {
        String separator = contents.separator() == null ? "," : contents.separator();
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setDelimiter(separator)
                .setTrim(true)
                .setIgnoreEmptyLines(true)
                .get();
        List<Item> items = new ArrayList<>();
        try (CSVParser parser = CSVParser.parse(new String(message.bytes(), StandardCharsets.UTF_8), format)) {
            List<String> names = List.of();
            for (CSVRecord line : parser) {
                if (line.getRecordNumber() == 1) {
                    names = line.toList();
                } else if (items.size() <= MOST_ITEMS) {
                    items.add(csvLine(contents, message, names, line.toList()));
                }
            }
        } catch (IOException | UncheckedIOException | IllegalStateException e) {
            items.add(new Item.Refused(message.bytes(), "the text is no CSV from here on: " + e.getMessage()));
        }
        return items.isEmpty()
                ? List.of(new Item.Refused(message.bytes(), "there is no line after the one that names the columns"))
                : items;
    }

    private static Item csvLine(Contents contents, Arrived message, List<String> names, List<String> cells) {
        if (cells.size() != names.size()) {
            return new Item.Refused(
                    String.join(",", cells).getBytes(StandardCharsets.UTF_8),
                    "the line has " + cells.size() + " columns, but the first line names " + names.size());
        }
        ObjectNode row = MAPPER.createObjectNode();
        for (int i = 0; i < names.size(); i++) {
            row.put(names.get(i), cells.get(i));
        }
        return item(contents, message, MAPPER.writeValueAsBytes(row), row);
    }

    /** Records of SenML: what a device says at one time goes together. */
    private static List<Item> senml(Arrived message, Instant now) {
        JsonNode document;
        try {
            document = MAPPER.readTree(message.bytes());
        } catch (JacksonException e) {
            return List.of(notJson(message, e));
        }
        if (!document.isArray() || document.isEmpty()) {
            return List.of(new Item.Refused(message.bytes(), "SenML is a JSON array of records (RFC 8428)"));
        }
        Optional<String> refusal = SenmlPack.refusal(document);
        if (refusal.isPresent()) {
            return List.of(new Item.Refused(message.bytes(), refusal.get()));
        }
        List<Item> items = new ArrayList<>();
        Map<Said, ObjectNode> groups = new LinkedHashMap<>();
        Map<Said, Map<String, String>> units = new HashMap<>();
        SenmlPack pack = new SenmlPack();
        for (JsonNode one : document) {
            SenmlPack.Resolved resolved = pack.next(one);
            JsonNode word = one.has("vb") ? one.path("vb") : one.path("vs");
            if (resolved.number() == null && word.isMissingNode()) {
                continue;
            }
            String name = resolved.name();
            int cut = Math.max(Math.max(name.lastIndexOf('/'), name.lastIndexOf(':')), name.lastIndexOf('_'));
            Optional<Instant> time = resolved.time(now);
            if (cut <= 0 || cut == name.length() - 1) {
                items.add(new Item.Refused(
                        MAPPER.writeValueAsBytes(one),
                        "the name '" + name + "' is no address and channel with / : or _ between them"));
            } else if (time.isEmpty()) {
                items.add(new Item.Refused(MAPPER.writeValueAsBytes(one), "its time lies thousands of years away"));
            } else {
                Said said = new Said(name.substring(0, cut), time.get());
                ObjectNode group = groups.computeIfAbsent(said, key -> MAPPER.createObjectNode());
                String channel = name.substring(cut + 1);
                if (resolved.unit() != null) {
                    units.computeIfAbsent(said, key -> new HashMap<>()).put(channel, resolved.unit());
                }
                if (resolved.number() != null) {
                    group.put(channel, resolved.number());
                } else {
                    group.set(channel, word);
                }
            }
        }
        groups.forEach((said, group) -> {
            byte[] bytes = MAPPER.writeValueAsBytes(group);
            items.add(new Item.Opened(
                    said.address(),
                    bytes,
                    bytes,
                    said.at().equals(now) ? null : said.at(),
                    null,
                    group,
                    units.getOrDefault(said, Map.of())));
        });
        return items.isEmpty() ? List.of(new Item.Refused(message.bytes(), "there is no value in it")) : items;
    }

    /** What goes together in a pack. */
    private record Said(String address, Instant at) {}

    private static Item item(Contents contents, Arrived message, byte[] bytes, @Nullable JsonNode json) {
        Source source = new Source(contents, message, json);
        Optional<String> address = contents.address() == null
                ? Optional.empty()
                : source.text(contents.address()).filter(text -> !text.isBlank());
        if (address.isEmpty()) {
            return new Item.Refused(
                    bytes,
                    "it does not say whose it is: there is nothing at "
                            + (contents.address() == null
                                    ? "?"
                                    : contents.address().text()));
        }
        if (address.get().length() > LONGEST_ADDRESS) {
            return new Item.Refused(bytes, "an address has " + LONGEST_ADDRESS + " characters at most");
        }
        byte[] payload = bytes;
        if (contents.payload() != null) {
            Optional<String> text = source.text(contents.payload());
            if (text.isEmpty()) {
                return new Item.Refused(
                        bytes, "there is nothing at " + contents.payload().text() + ", where its payload should stand");
            }
            try {
                payload = decoded(
                        text.get(),
                        contents.payload() instanceof Locator.Bytes ? Contents.Encoding.HEX : contents.encoding());
            } catch (IllegalArgumentException e) {
                return new Item.Refused(
                        bytes,
                        "its payload is not written in "
                                + (contents.encoding() == null
                                        ? "plain text"
                                        : contents.encoding().id()) + ": " + e.getMessage());
            }
        }
        Optional<String> said = contents.time() == null ? Optional.empty() : source.text(contents.time());
        Optional<Instant> time = said.flatMap(Opener::time);
        if (said.isPresent() && time.isEmpty()) {
            return new Item.Refused(
                    bytes,
                    "'" + said.get() + "' is no time: ISO 8601 with a zone, or seconds or milliseconds since 1970");
        }
        Double signal = contents.signal() == null
                ? null
                : source.text(contents.signal()).flatMap(Opener::number).orElse(null);
        return new Item.Opened(
                address.get().strip(),
                bytes,
                payload,
                time.orElse(null),
                signal,
                contents.payload() == null ? json : null);
    }

    private static byte[] decoded(String text, Contents.@Nullable Encoding encoding) {
        return switch (encoding == null ? Contents.Encoding.PLAIN : encoding) {
            case PLAIN -> text.getBytes(StandardCharsets.UTF_8);
            case HEX -> HexFormat.of().parseHex(text.replaceAll("[\\s:-]", ""));
            case BASE64 ->
                Base64.getDecoder().decode(text.strip().replace('-', '+').replace('_', '/'));
        };
    }

    private static Optional<Double> number(String text) {
        try {
            return Optional.of(Double.valueOf(text.strip())).filter(Double::isFinite);
        } catch (NumberFormatException e) {
            return Optional.empty();
        }
    }

    private static Optional<Instant> time(String text) {
        Optional<Double> number = number(text);
        if (number.isPresent()) {
            double value = number.get();
            double millis = value >= NANOS_FROM ? value / 1e6 : value >= MILLIS_FROM ? value : value * 1_000;
            return Math.abs(millis) < 1e15 ? Optional.of(Instant.ofEpochMilli(Math.round(millis))) : Optional.empty();
        }
        try {
            return Optional.of(
                    OffsetDateTime.parse(text.strip().replace(' ', 'T')).toInstant());
        } catch (DateTimeException e) {
            return Optional.empty();
        }
    }

    /** Looks things up in a message. */
    private record Source(
            Contents contents, Arrived message, @Nullable JsonNode json) {
        Optional<String> text(Locator place) {
            return switch (place) {
                case Locator.Column(int index) ->
                    LineLayout.column(
                            new String(message.bytes(), StandardCharsets.UTF_8).strip(),
                            contents.columnSeparator(),
                            index);
                case Locator.InJson(var path) -> json == null ? Optional.empty() : path.text(json);
                case Locator.Bytes(int from, int count) ->
                    from + count > message.bytes().length
                            ? Optional.empty()
                            : Optional.of(HexFormat.of().formatHex(message.bytes(), from, from + count));
                case Locator.OfTopic(String part) ->
                    Optional.ofNullable(message.names().get(part));
                case Locator.Header(String name) ->
                    Optional.ofNullable(message.names().get(name));
                case Locator.Sender sender -> Optional.of(message.sender());
                case Locator.Fixed(String fixed) -> Optional.of(fixed);
            };
        }
    }
}
