package org.openpasture.core.yaml;

import java.util.ArrayList;
import java.util.List;
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
 * Files that people write and read: YAML 1.2, of which JSON is a part. Neither anchors nor aliases are read, which make
 * small files large, and no field twice. What is wrong is said with the line or the entry in which it is.
 */
public final class YamlFile {
    /** Longer files are not read, in characters. */
    public static final int LONGEST = 1_000_000;

    private static final double GREATEST = 1e15;
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

    private YamlFile() {}

    /** Why a text cannot be read, in words for who wrote it. */
    public static final class Unreadable extends RuntimeException {
        private static final long serialVersionUID = 1;

        public Unreadable(String message) {
            super(message);
        }
    }

    /** A value as a tree that can be changed and written. */
    public static <T extends JsonNode> T tree(Object value) {
        return MAPPER.valueToTree(value);
    }

    /** A tree as text, without what says nothing: null, empty text, empty lists and objects. */
    public static String write(JsonNode tree) {
        return MAPPER.writeValueAsString(withoutNothing(tree));
    }

    /**
     * A text as a tree.
     *
     * @throws Unreadable if it is too long, no YAML, or has anchors
     */
    public static JsonNode tree(String text) {
        if (text.length() > LONGEST) {
            throw new Unreadable("The file has more than " + LONGEST + " characters. Split it.");
        }
        try {
            try (YAMLParser parser = (YAMLParser) MAPPER.createParser(text)) {
                for (JsonToken token = parser.nextToken(); token != null; token = parser.nextToken()) {
                    if (parser.isCurrentAlias() || parser.getObjectId() != null) {
                        throw new Unreadable(
                                "Line " + parser.currentTokenLocation().getLineNr()
                                        + " has a YAML anchor or alias ('&', '*'), which cannot be used here."
                                        + " Write out what it stands for.");
                    }
                }
            }
            return MAPPER.readTree(text);
        } catch (JacksonException e) {
            throw new Unreadable("The file is not readable as YAML" + line(e) + ": " + firstLine(e) + ".");
        }
    }

    /**
     * A tree as what it stands for.
     *
     * @param what it is, in a word: "pack"
     * @throws Unreadable if it cannot be that, naming the entry and the reason
     */
    public static <T> T value(JsonNode tree, Class<T> type, String what) {
        try {
            return MAPPER.treeToValue(tree, type);
        } catch (JacksonException e) {
            throw new Unreadable("The " + what + " cannot be used: " + where(e) + why(e) + ".");
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

    /** Where in the file: "rules, entry 3: ". */
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

    /**
     * The entries of a list; none if there is no such list.
     *
     * @throws Unreadable if it is no list of things with fields
     */
    public static List<ObjectNode> items(ObjectNode file, String list) {
        JsonNode found = file.path(list);
        List<ObjectNode> items = new ArrayList<>();
        if (found.isMissingNode() || found.isNull()) {
            return items;
        }
        if (!found.isArray()) {
            throw new Unreadable("'" + list + "' is a list: each entry begins with '- '.");
        }
        found.forEach(item -> {
            if (!(item instanceof ObjectNode object)) {
                throw new Unreadable("Entry " + (items.size() + 1) + " of '" + list + "' has no fields.");
            }
            items.add(object);
        });
        return items;
    }

    /** Leaves a field out that has its usual value. */
    public static void drop(ObjectNode thing, String field, Object usual) {
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
            node.forEach(YamlFile::withoutNothing);
        }
        return node;
    }

    /**
     * Brings text into one form.
     *
     * @throws Unreadable for text that cannot be shown, and for numbers beyond reason
     */
    public static void check(JsonNode tree) {
        checked(tree, "");
    }

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
