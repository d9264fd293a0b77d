package org.openpasture.core.layout;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** What is wanted of a device that is asked, and how its answers are read. */
public sealed interface AskedLayout extends Layout permits RegisterLayout, ObjectLayout {
    List<? extends AskedField> fields();

    /** Periods in seconds that some channels have for themselves, the shortest first. */
    default Set<Integer> ownPeriods() {
        return fields().stream()
                .map(AskedField::every)
                .filter(Objects::nonNull)
                .collect(Collectors.toCollection(TreeSet::new));
    }

    /** The part of it that is asked at a period of its own; with null, the rest, which is asked as the device is. */
    AskedLayout group(@Nullable Integer every);

    /** Channels that people may set from here. */
    default Set<String> settable() {
        return fields().stream()
                .filter(AskedField::isSettable)
                .map(AskedField::channel)
                .collect(Collectors.toCollection(LinkedHashSet::new));
    }

    @Override
    default Set<String> channels() {
        return fields().stream().map(AskedField::channel).collect(Collectors.toCollection(LinkedHashSet::new));
    }

    /**
     * What was read for each channel, before it became a number.
     *
     * @throws IllegalArgumentException if the image is none of this layout
     */
    List<Raw> raw(byte[] image);

    /**
     * What was read for a channel.
     *
     * @param where in the device it lies, for people
     * @param text hex digits or what the device said; empty if it was not read
     */
    record Raw(String channel, String where, String text) {}

    /** A period of a field is a second to a day. */
    static void requirePeriod(String channel, @Nullable Integer every) {
        if (every != null && (every < 1 || every > 86_400)) {
            throw new IllegalArgumentException(
                    "field '" + channel + "': it is asked every 1 to 86400 seconds, not " + every);
        }
    }

    /**
     * The field of a channel that may be set.
     *
     * @throws IllegalArgumentException if there is none, naming those there are
     */
    static <F extends AskedField> F settable(List<F> fields, String channel) {
        return fields.stream()
                .filter(field -> field.channel().equals(channel) && field.isSettable())
                .findFirst()
                .orElseThrow(() -> {
                    String there = fields.stream()
                            .filter(AskedField::isSettable)
                            .map(AskedField::channel)
                            .distinct()
                            .collect(Collectors.joining(" "));
                    return new IllegalArgumentException("'" + channel + "' cannot be set; "
                            + (there.isEmpty()
                                    ? "the device's model allows it for none of its channels"
                                    : "there are " + there));
                });
    }
}
