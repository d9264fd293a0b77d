package org.openpasture.core.pack;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.text.Text;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonToken;
import tools.jackson.core.StreamReadFeature;
import tools.jackson.databind.DatabindException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.exc.InvalidTypeIdException;
import tools.jackson.databind.exc.MismatchedInputException;
import tools.jackson.databind.exc.UnrecognizedPropertyException;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;
import tools.jackson.databind.node.StringNode;
import tools.jackson.dataformat.yaml.YAMLMapper;
import tools.jackson.dataformat.yaml.YAMLParser;
import tools.jackson.dataformat.yaml.YAMLWriteFeature;

/**
 * Packs as text: YAML 1.2, of which JSON is a part, so that people can read, compare and edit them. What stands at its
 * usual value is left out. Neither anchors nor aliases are read, which make small files large. docs/packs.md describes
 * the format.
 */
public final class PackFile {
    /** Longer files are not read, in characters. */
    public static final int LONGEST = 1_000_000;

    private static final double GREATEST = 1e15;
    private static final List<String> KEYED = List.of("limitSets", "deviceModels", "rules");
    private static final YAMLMapper MAPPER = YAMLMapper.builder()
            .enable(YAMLWriteFeature.MINIMIZE_QUOTES)
            .enable(YAMLWriteFeature.ALWAYS_QUOTE_NUMBERS_AS_STRINGS)
            .enable(YAMLWriteFeature.LITERAL_BLOCK_STYLE)
            .enable(YAMLWriteFeature.INDENT_ARRAYS_WITH_INDICATOR)
            .disable(YAMLWriteFeature.WRITE_DOC_START_MARKER)
            .disable(YAMLWriteFeature.SPLIT_LINES)
            .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
            .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
            .build();

    private PackFile() {}

    /** Why a text is no pack, in words for who wrote it. */
    public static final class Unreadable extends RuntimeException {
        private static final long serialVersionUID = 1;

        Unreadable(String message) {
            super(message);
        }
    }

    /** A pack as text. */
    public static String write(Pack pack) {
        ObjectNode tree = MAPPER.valueToTree(pack);
        for (String list : KEYED) {
            tree.path(list).valueStream().forEach(thing -> keyInsteadOfId((ObjectNode) thing));
        }
        tree.path("rules").valueStream().map(ObjectNode.class::cast).forEach(rule -> {
            rule.remove(List.of("recipients", "rounds"));
            drop(rule, "enabled", true);
            drop(rule, "deadBand", 0.0);
            drop(rule, "measure", Map.of("kind", "last"));
            drop(rule, "hold", Map.of("kind", "time", "seconds", 0));
        });
        tree.path("dashboards")
                .valueStream()
                .flatMap(board -> board.path("panels").valueStream())
                .forEach(panel -> ((ObjectNode) panel).remove("id"));
        tree.path("limitSets").valueStream().map(ObjectNode.class::cast).forEach(set -> set.remove("shipped"));
        tree.path("deviceModels").valueStream().map(ObjectNode.class::cast).forEach(model -> model.remove("version"));
        return MAPPER.writeValueAsString(withoutNothing(tree));
    }

    /**
     * Reads a pack.
     *
     * @throws Unreadable if it is none, of a newer format, or says what makes no sense
     */
    public static Pack read(String text) {
        if (text.length() > LONGEST) {
            throw new Unreadable("The file has more than " + LONGEST + " characters. Split the pack.");
        }
        JsonNode tree = tree(text);
        if (!(tree instanceof ObjectNode pack) || !pack.path("openPasturePack").isIntegralNumber()) {
            throw new Unreadable(
                    "The file is not a pack: it does not begin with 'openPasturePack: " + Pack.FORMAT + "'.");
        }
        if (pack.path("openPasturePack").asLong() > Pack.FORMAT) {
            throw new Unreadable("The pack was made by a newer version of this program. Update this one first.");
        }
        checked(pack, "");
        for (String list : KEYED) {
            items(pack, list).forEach(PackFile::idInsteadOfKey);
        }
        items(pack, "rules").forEach(rule -> {
            rule.putArray("recipients");
            rule.remove("rounds");
            rule.putIfAbsent("enabled", MAPPER.valueToTree(true));
            rule.putIfAbsent("deadBand", MAPPER.valueToTree(0));
            rule.putIfAbsent("hold", MAPPER.valueToTree(Map.of("kind", "time", "seconds", 0)));
            rule.putIfAbsent("guidance", StringNode.valueOf(""));
        });
        items(pack, "limitSets").forEach(set -> set.put("shipped", false));
        items(pack, "dashboards").forEach(PackFile::nameThePanels);
        return value(pack);
    }

    private static JsonNode tree(String text) {
        try {
            try (YAMLParser parser = (YAMLParser) MAPPER.createParser(text)) {
                for (JsonToken token = parser.nextToken(); token != null; token = parser.nextToken()) {
                    if (parser.isCurrentAlias() || parser.getObjectId() != null) {
                        throw new Unreadable(
                                "Line " + parser.currentTokenLocation().getLineNr()
                                        + " has a YAML anchor or alias ('&', '*'), which packs cannot have."
                                        + " Write out what it stands for.");
                    }
                }
            }
            return MAPPER.readTree(text);
        } catch (JacksonException e) {
            throw new Unreadable("The file is not readable as YAML" + line(e) + ": " + firstLine(e) + ".");
        }
    }

    private static Pack value(ObjectNode pack) {
        try {
            return MAPPER.treeToValue(pack, Pack.class);
        } catch (JacksonException e) {
            throw new Unreadable("The pack cannot be used: " + where(e) + why(e) + ".");
        }
    }

    private static String why(JacksonException e) {
        return switch (e) {
            case UnrecognizedPropertyException unknown -> "there is no field '" + unknown.getPropertyName() + "' there";
            case InvalidTypeIdException unknown -> "there is no kind '" + unknown.getTypeId() + "'";
            case MismatchedInputException missing
            when missing.getTargetType() != null && missing.getTargetType().isPrimitive() ->
                "a value is missing, or is none of that kind";
            default -> {
                Throwable cause = e;
                while (cause.getCause() != null) {
                    cause = cause.getCause();
                }
                yield cause instanceof JacksonException ? firstLine(e) : String.valueOf(cause.getMessage());
            }
        };
    }

    /** Where in the pack: "rules, entry 3: ". */
    private static String where(JacksonException e) {
        if (!(e instanceof DatabindException bound) || bound.getPath().isEmpty()) {
            return "";
        }
        List<String> steps = new ArrayList<>();
        bound.getPath()
                .forEach(step -> steps.add(
                        step.getPropertyName() == null
                                ? "entry " + (step.getIndex() + 1)
                                : "'" + step.getPropertyName() + "'"));
        return "in " + String.join(", ", steps) + ": ";
    }

    private static String line(JacksonException e) {
        return e.getLocation() == null || e.getLocation().getLineNr() < 1
                ? ""
                : " in line " + e.getLocation().getLineNr();
    }

    private static String firstLine(JacksonException e) {
        String message = e.getOriginalMessage() == null ? "" : e.getOriginalMessage();
        return message.lines().findFirst().orElse("").replaceAll("\\.$", "");
    }

    private static List<ObjectNode> items(ObjectNode pack, String list) {
        JsonNode found = pack.path(list);
        List<ObjectNode> items = new ArrayList<>();
        if (found.isMissingNode() || found.isNull()) {
            return items;
        }
        if (!found.isArray()) {
            throw new Unreadable("'" + list + "' is a list: each entry begins with '- key: '.");
        }
        found.forEach(item -> {
            if (!(item instanceof ObjectNode object)) {
                throw new Unreadable("Entry " + (items.size() + 1) + " of '" + list + "' has no fields.");
            }
            items.add(object);
        });
        return items;
    }

    private static void keyInsteadOfId(ObjectNode thing) {
        JsonNode id = thing.remove("id");
        ObjectNode rest = thing.deepCopy();
        thing.removeAll();
        thing.set("key", id);
        thing.setAll(rest);
    }

    private static void idInsteadOfKey(ObjectNode thing) {
        if (thing.has("id") || thing.has("siteId")) {
            throw new Unreadable("Parts of a pack are named by 'key'; they have neither 'id' nor 'siteId'.");
        }
        JsonNode key = thing.remove("key");
        if (key != null) {
            thing.set("id", key);
        }
    }

    private static void nameThePanels(ObjectNode dashboard) {
        int number = 0;
        for (JsonNode panel : dashboard.path("panels")) {
            number++;
            if (panel instanceof ObjectNode object) {
                object.putIfAbsent("id", StringNode.valueOf("panel-" + number));
            }
        }
    }

    private static void drop(ObjectNode thing, String field, Object usual) {
        JsonNode usually = MAPPER.valueToTree(usual);
        if (usually.equals(thing.get(field))) {
            thing.remove(field);
        }
    }

    /** Without what says nothing: null, empty text, empty lists and objects. */
    private static JsonNode withoutNothing(JsonNode node) {
        if (node instanceof ObjectNode object) {
            for (String name : List.copyOf(object.propertyNames())) {
                JsonNode value = withoutNothing(object.get(name));
                if (value.isNull()
                        || value.isString() && value.asString().isEmpty()
                        || value.isContainer() && value.isEmpty()) {
                    object.remove(name);
                }
            }
        } else if (node.isArray()) {
            node.forEach(PackFile::withoutNothing);
        }
        return node;
    }

    /** Text in one form and such as can be shown, numbers within reason. */
    private static void checked(JsonNode node, String name) {
        if (node instanceof ObjectNode object) {
            for (String field : List.copyOf(object.propertyNames())) {
                JsonNode value = object.get(field);
                checked(value, field);
                plain(value, field).ifPresent(text -> object.put(field, text));
            }
        } else if (node instanceof ArrayNode array) {
            for (int i = 0; i < array.size(); i++) {
                JsonNode value = array.get(i);
                checked(value, name);
                int at = i;
                plain(value, name).ifPresent(text -> array.set(at, StringNode.valueOf(text)));
            }
        } else if (node.isNumber() && !(Math.abs(node.asDouble()) <= GREATEST)) {
            throw new Unreadable("'" + name + "' is beyond all reason: numbers are at most 1e15.");
        }
    }

    private static Optional<String> plain(@Nullable JsonNode value, String field) {
        if (value == null || !value.isString()) {
            return Optional.empty();
        }
        try {
            return Optional.of(Text.lines(value.asString()));
        } catch (IllegalArgumentException e) {
            throw new Unreadable("'" + field + "': " + e.getMessage() + ".");
        }
    }
}
