package org.openpasture.core.layout;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;

/**
 * A way to values in a JSON document: the part of JSONPath (RFC 9535) that messages of sensors need. {@code $} or
 * {@code @} for the document, names ({@code .air} or {@code ['air']}), indexes from either end ({@code [0]},
 * {@code [-1]}), all members ({@code [*]}), and those with a member of a value ({@code [?@.id=='t1']}).
 */
public final class JsonPath {
    private static final Pattern STEP = Pattern.compile(
            "\\.(?<dotted>[^.\\[\\]\\s*]+)|\\.\\*|\\[(?<all>\\*)]|\\[(?<index>-?\\d{1,6})]"
                    + "|\\['(?<single>[^']*)']|\\[\"(?<double>[^\"]*)\"]|\\[\\?\\s*@\\.(?<member>[^\\s=\\]]+)\\s*==\\s*(?:'(?<text>[^']*)'|\"(?<text2>[^\"]*)\"|(?<other>[^\\s\\]]+))\\s*]");
    /** More than any message may speak of, so that whoever looks sees that there are too many. */
    private static final int MOST_FOUND = 50_001;

    private sealed interface Step {
        record Name(String name) implements Step {}

        record Index(int index) implements Step {}

        record All() implements Step {}

        /** Members that themselves have a member of this value. */
        record Where(String member, String value) implements Step {}
    }

    private final String text;
    private final List<Step> steps;

    private JsonPath(String text, List<Step> steps) {
        this.text = text;
        this.steps = steps;
    }

    /**
     * Reads a path.
     *
     * @throws IllegalArgumentException if it is none of those that are understood, in words
     */
    @JsonCreator
    public static JsonPath of(String text) {
        String rest = text.strip();
        if (!rest.startsWith("$") && !rest.startsWith("@")) {
            throw new IllegalArgumentException(
                    "a JSON path begins with $, as in $.air.temperature, not '" + text + "'");
        }
        List<Step> steps = new ArrayList<>();
        Matcher matcher = STEP.matcher(rest);
        int at = 1;
        while (at < rest.length()) {
            if (!matcher.find(at) || matcher.start() != at) {
                throw new IllegalArgumentException(
                        "the JSON path '" + text + "' cannot be read from '" + rest.substring(at) + "' on");
            }
            steps.add(step(matcher));
            at = matcher.end();
        }
        return new JsonPath(rest, List.copyOf(steps));
    }

    private static Step step(Matcher matcher) {
        String name = first(matcher, "dotted", "single", "double");
        if (name != null) {
            return new Step.Name(name);
        }
        String index = matcher.group("index");
        if (index != null) {
            return new Step.Index(Integer.parseInt(index));
        }
        String member = matcher.group("member");
        return member == null
                ? new Step.All()
                : new Step.Where(member, String.valueOf(first(matcher, "text", "text2", "other")));
    }

    private static @Nullable String first(Matcher matcher, String... groups) {
        for (String group : groups) {
            String found = matcher.group(group);
            if (found != null) {
                return found;
            }
        }
        return null;
    }

    /** All values that it leads to, in the document's order, 10,000 at most. */
    public List<JsonNode> find(JsonNode document) {
        List<JsonNode> found = List.of(document);
        for (Step step : steps) {
            List<JsonNode> next = new ArrayList<>();
            for (JsonNode node : found) {
                if (next.size() < MOST_FOUND) {
                    follow(step, node, next);
                }
            }
            found = next;
        }
        return found;
    }

    /** Whether it asks for all of a list that is there and empty: nothing is new, which is no mistake. */
    public boolean isEmptyList(JsonNode document) {
        if (steps.isEmpty() || !(steps.getLast() instanceof Step.All)) {
            return false;
        }
        List<JsonNode> lists = new JsonPath(text, steps.subList(0, steps.size() - 1)).find(document);
        return !lists.isEmpty() && lists.stream().allMatch(node -> node.isArray() && node.isEmpty());
    }

    private static void follow(Step step, JsonNode node, List<JsonNode> next) {
        switch (step) {
            case Step.Name(String name) -> add(node.get(name), next);
            case Step.Index(int index) ->
                add(node.isArray() ? node.get(index < 0 ? node.size() + index : index) : null, next);
            case Step.All all -> node.forEach(member -> add(next.size() < MOST_FOUND ? member : null, next));
            case Step.Where(String member, String value) ->
                node.forEach(one -> {
                    JsonNode found = one.get(member);
                    add(
                            found != null
                                            && found.isValueNode()
                                            && found.asString().equals(value)
                                            && next.size() < MOST_FOUND
                                    ? one
                                    : null,
                            next);
                });
        }
    }

    private static void add(@Nullable JsonNode node, List<JsonNode> to) {
        if (node != null) {
            to.add(node);
        }
    }

    /** The first value that it leads to, if that is one: text, a number, true or false. */
    public Optional<String> text(JsonNode document) {
        return first(document, node -> node.isValueNode() && !node.isNull()).map(JsonNode::asString);
    }

    /** The first node without members that it leads to; may be null in JSON. */
    Optional<JsonNode> value(JsonNode document) {
        return first(document, JsonNode::isValueNode);
    }

    private Optional<JsonNode> first(JsonNode document, Predicate<JsonNode> wanted) {
        JsonNode node = document;
        for (Step step : steps) {
            if (!(step instanceof Step.Name(String name))) {
                return find(document).stream().filter(wanted).findFirst();
            }
            // Nearly all paths are names alone, and lead to one place.
            node = node.get(name);
            if (node == null) {
                return Optional.empty();
            }
        }
        return Optional.of(node).filter(wanted);
    }

    @JsonValue
    @Override
    public String toString() {
        return text;
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof JsonPath path && path.text.equals(text);
    }

    @Override
    public int hashCode() {
        return text.hashCode();
    }
}
