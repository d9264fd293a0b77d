package org.openpasture.store.sqlite;

import java.time.Instant;
import org.jooq.Condition;
import org.jooq.Field;
import org.jooq.SortField;
import org.jspecify.annotations.Nullable;

/**
 * Where somebody who reads a table backwards in time goes on: at what is older than a moment, or of that moment and
 * with a smaller number.
 *
 * @param since nothing that is older; null for all
 * @param millis the moment, in epoch milliseconds
 * @param number rows of that moment with this number or a greater one are known already
 * @param most how many rows are wanted
 */
public record Backwards(@Nullable Instant since, long millis, long number, int most) {
    /** Whether a row belongs to it. */
    public Condition where(Field<Long> time, Field<Long> id) {
        Condition older = time.lt(millis).or(time.eq(millis).and(id.lt(number)));
        return since == null ? older : older.and(time.ge(since.toEpochMilli()));
    }

    /** The order in which rows are read. */
    public static SortField<?>[] order(Field<Long> time, Field<Long> id) {
        return new SortField<?>[] {time.desc(), id.desc()};
    }
}
