package org.openpasture.core.edit;

import java.time.Instant;
import java.util.Map;
import org.openpasture.core.baseline.Outcome;

/** What a person wishes to change of baselines. */
public sealed interface BaselineWish {
    /**
     * Records one for each of several points.
     *
     * @param ids by point id, the id of the baseline to be made and what came of it so far
     */
    record Make(Map<String, Made> ids, Properties properties, Instant from, Instant until) implements BaselineWish {
        public Make {
            ids = Map.copyOf(ids);
        }
    }

    /** A baseline to be made. */
    record Made(String id, Outcome outcome) {}

    /** Changes what is said of one. */
    record Change(String id, Properties properties) implements BaselineWish {}

    /** Removes one. */
    record Remove(String id) implements BaselineWish {}

    /**
     * What people say of a baseline.
     *
     * @param reference whether its point is compared with it from now on
     */
    record Properties(String name, boolean good, boolean reference, String note) {}
}
