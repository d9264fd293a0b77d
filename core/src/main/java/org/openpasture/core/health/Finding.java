package org.openpasture.core.health;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.time.Duration;
import java.time.Instant;
import java.util.Locale;
import org.openpasture.core.entity.Ids;

/**
 * Something that is wrong with the readings of a stretch of time, as often as it was.
 *
 * @param times how often
 * @param from where it was first
 * @param until where it was last, or ended
 * @param longest the longest of them; zero for what takes no time
 */
public record Finding(Kind kind, int times, Instant from, Instant until, Duration longest) {

    /** What can be wrong, the worst first. */
    public enum Kind {
        /** No reading came, for three times the usual interval at least. */
        GAP,
        /** The value stayed exactly the same, for hours, though it usually does not. */
        STUCK,
        /** The value cannot be real. */
        IMPOSSIBLE,
        /** One value far from those before and after it. */
        SPIKE,
        /** From one reading to the next the value moved far, and stayed there. */
        JUMP;

        @JsonCreator
        public static Kind of(String id) {
            return Ids.of(values(), Kind::id, "kind of finding", id);
        }

        @JsonValue
        public String id() {
            return name().toLowerCase(Locale.ROOT);
        }
    }
}
