package org.openpasture.core.inlet;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * Topics of a broker that are wanted, as MQTT 5, 4.7 has its filters, with names for the parts that say something:
 * {@code farm/{serial}/state} asks for {@code farm/+/state}, and tells what stood in place of the plus.
 */
public record TopicPattern(@JsonValue String text) {
    private static final Pattern NAMED = Pattern.compile("\\{([A-Za-z][A-Za-z0-9_-]{0,30})}");
    private static final int LONGEST = 500;
    private static final int MOST = 100;

    @JsonCreator
    public TopicPattern {
        if (text == null || text.isBlank() || text.length() > LONGEST || text.indexOf('\0') >= 0) {
            throw new IllegalArgumentException("a topic has 1 to " + LONGEST + " characters");
        }
        String[] levels = text.split("/", -1);
        for (int i = 0; i < levels.length; i++) {
            String level = levels[i];
            boolean wild = level.contains("+") || level.contains("#") || level.contains("{") || level.contains("}");
            boolean whole = level.equals("+")
                    || level.equals("#") && i == levels.length - 1
                    || NAMED.matcher(level).matches();
            if (wild && !whole) {
                throw new IllegalArgumentException("'" + text
                        + "': +, {name} and, at the end, # stand for whole parts of a topic between slashes");
            }
        }
    }

    /**
     * What a topic says by the names of its parts, by the first of these that fits, and the topic itself as "topic".
     */
    public static Map<String, String> names(List<TopicPattern> patterns, String topic) {
        Map<String, String> names = new HashMap<>(patterns.stream()
                .flatMap(pattern -> pattern.match(topic).stream())
                .findFirst()
                .orElse(Map.of()));
        names.put("topic", topic);
        return names;
    }

    /** A list of 1 to 100 of them. */
    static List<TopicPattern> some(List<TopicPattern> topics) {
        if (topics == null || topics.isEmpty() || topics.size() > MOST) {
            throw new IllegalArgumentException("1 to " + MOST + " topics are wanted, such as farm/{serial}/state");
        }
        return List.copyOf(topics);
    }

    /** What the broker is asked for. */
    public String filter() {
        return NAMED.matcher(text).replaceAll("+");
    }

    /** A subscription that several share begins with {@code $share/GROUP/} (MQTT 5, 4.8.2), which no topic does. */
    private String withoutShare() {
        return text.startsWith("$share/") ? text.substring(text.indexOf('/', "$share/".length()) + 1) : text;
    }

    /** Whether it asks for topics whatever they begin with. */
    public boolean beginsWild() {
        String first = withoutShare().split("/", -1)[0];
        return first.equals("#") || first.equals("+") || first.startsWith("{");
    }

    /** Whether there is a topic that is one of these and one of the others. */
    public boolean overlaps(TopicPattern other) {
        String[] mine = withoutShare().split("/", -1);
        String[] theirs = other.withoutShare().split("/", -1);
        for (int i = 0; ; i++) {
            boolean mineEnds = i == mine.length;
            boolean theirsEnd = i == theirs.length;
            if (mineEnds || theirsEnd) {
                // "a/#" is asked for "a" too (MQTT 5, 4.7.1.2).
                return mineEnds && theirsEnd || !mineEnds && mine[i].equals("#") || !theirsEnd && theirs[i].equals("#");
            }
            if (mine[i].equals("#") || theirs[i].equals("#")) {
                return true;
            }
            if (!isWild(mine[i]) && !isWild(theirs[i]) && !mine[i].equals(theirs[i])) {
                return false;
            }
        }
    }

    private static boolean isWild(String level) {
        return level.equals("+") || level.startsWith("{");
    }

    /** The named parts of a topic; empty if the topic is none of these. */
    public Optional<Map<String, String>> match(String topic) {
        String[] levels = withoutShare().split("/", -1);
        String[] parts = topic.split("/", -1);
        Map<String, String> names = new HashMap<>();
        for (int i = 0; i < levels.length; i++) {
            if (levels[i].equals("#")) {
                return Optional.of(names);
            }
            if (i >= parts.length) {
                return Optional.empty();
            }
            if (levels[i].startsWith("{")) {
                names.put(levels[i].substring(1, levels[i].length() - 1), parts[i]);
            } else if (!levels[i].equals("+") && !levels[i].equals(parts[i])) {
                return Optional.empty();
            }
        }
        return parts.length == levels.length ? Optional.of(names) : Optional.empty();
    }
}
