package org.openpasture.core.formula;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Arrays;
import java.util.Locale;
import org.openpasture.core.entity.Ids;

/** What several values come to. */
public enum Statistic {
    MEAN,
    MINIMUM,
    MAXIMUM,
    SUM;

    @JsonCreator
    public static Statistic of(String id) {
        return Ids.of(values(), Statistic::id, "statistic", id);
    }

    @JsonValue
    public String id() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** Of one value at least. */
    public double of(double[] values) {
        return switch (this) {
            case MEAN -> Arrays.stream(values).sum() / values.length;
            case MINIMUM -> Arrays.stream(values).min().orElse(Double.NaN);
            case MAXIMUM -> Arrays.stream(values).max().orElse(Double.NaN);
            case SUM -> Arrays.stream(values).sum();
        };
    }
}
