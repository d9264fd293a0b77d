package org.openpasture.core.derive;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.openpasture.core.reading.Reading;

/** What points read before; asked by whoever derives. */
public interface Past {
    /** The newest reading of a point; empty if it has none. */
    Optional<Reading> latest(int point);

    /** Its readings with {@code from <= time <= until}, in the order of their times. */
    List<Reading> between(int point, Instant from, Instant until);
}
