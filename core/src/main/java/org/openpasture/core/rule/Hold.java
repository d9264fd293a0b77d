package org.openpasture.core.rule;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.time.Duration;

/** How long a condition must hold before it is an alert, because a spike must not wake anybody. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Hold.ForTime.class, name = "time"),
    @JsonSubTypes.Type(value = Hold.ForReports.class, name = "reports")
})
public sealed interface Hold {
    /**
     * Whether a condition has held for long enough.
     *
     * @param held for how long, without a break
     * @param reports in how many reports in a row
     */
    default boolean isMet(Duration held, int reports) {
        return switch (this) {
            case ForTime(int seconds) -> held.compareTo(Duration.ofSeconds(seconds)) >= 0;
            case ForReports(int count) -> reports >= count;
        };
    }

    /** For so many seconds without a break; 0 for at once. */
    record ForTime(int seconds) implements Hold {
        public ForTime {
            if (seconds < 0) {
                throw new IllegalArgumentException("a hold time cannot be negative");
            }
        }
    }

    /** In so many reports in a row. */
    record ForReports(int count) implements Hold {
        public ForReports {
            if (count < 1) {
                throw new IllegalArgumentException("a rule needs at least one report");
            }
        }
    }
}
