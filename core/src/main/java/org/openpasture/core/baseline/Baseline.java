package org.openpasture.core.baseline;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.openpasture.core.entity.Entity;

/**
 * What a point measured over a stretch of time of which people know in which condition the machine was. The values are
 * kept with it, so that they outlast the readings.
 *
 * @param pointId the point
 * @param name of the condition ("after the overhaul", "bearing worn")
 * @param good whether the machine was in good condition
 * @param reference whether the point is compared with it; of one point at most one is, and it is a good one
 * @param from where the stretch begins
 * @param until where it ends; may lie ahead while it is recorded
 * @param outcome the usual values, or why there are none
 * @param by who made it
 * @param madeAt when
 * @param note why, in their words; may be empty
 */
public record Baseline(
        String id,
        String pointId,
        String name,
        boolean good,
        boolean reference,
        Instant from,
        Instant until,
        Outcome outcome,
        String by,
        Instant madeAt,
        String note)
        implements Entity {
    public static final Duration SHORTEST = Duration.ofMinutes(1);
    public static final Duration LONGEST = Duration.ofDays(366);

    public Baseline {
        by = by == null ? "" : by;
        note = note == null ? "" : note;
        if (reference && !good) {
            throw new IllegalArgumentException("only a good condition can be the reference");
        }
    }

    /** The usual values, if they are known. */
    public Optional<Spread> spread() {
        return outcome.values();
    }

    /** The same with what came of it. */
    public Baseline with(Outcome other) {
        return new Baseline(id, pointId, name, good, reference, from, until, other, by, madeAt, note);
    }

    /** The same, and the point is not compared with it any more. */
    public Baseline asPast() {
        return new Baseline(id, pointId, name, good, false, from, until, outcome, by, madeAt, note);
    }
}
