package org.openpasture.core.judging;

import java.time.Instant;
import java.util.Optional;
import java.util.function.Consumer;
import org.openpasture.core.reading.Reading;

/** What was measured before, for measures that look back further than the judge has looked. */
@FunctionalInterface
public interface Past {
    /** Nothing is known of the past. */
    Past NONE = (point, from, until, consumer) -> {};

    /**
     * Hands over the readings of a point in the order of their times. Readings that are many may be thinned to means of
     * stretches that are short beside the whole.
     *
     * @param point its number
     * @param until excluded
     */
    void read(int point, Instant from, Instant until, Consumer<Reading> consumer);

    /** The last reading of a point before a moment. */
    default Optional<Reading> before(int point, Instant moment) {
        return Optional.empty();
    }
}
