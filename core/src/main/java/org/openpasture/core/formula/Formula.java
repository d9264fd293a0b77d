package org.openpasture.core.formula;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.quantity.Averaging;
import org.openpasture.core.rule.Target;

/** How the readings of a derived point follow from those of other points. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Formula.Prepared.class, name = "prepared"),
    @JsonSubTypes.Type(value = Formula.Written.class, name = "written"),
    @JsonSubTypes.Type(value = Formula.Over.class, name = "over"),
    @JsonSubTypes.Type(value = Formula.OverTime.class, name = "overTime"),
    @JsonSubTypes.Type(value = Formula.While.class, name = "while")
})
public sealed interface Formula {
    /** How far the times of inputs may lie apart where nothing was said. */
    int USUAL_WITHIN_MINUTES = 60;

    int LONGEST_WITHIN_MINUTES = 7 * 24 * 60;

    int LONGEST_EVERY_MINUTES = 24 * 60;

    /**
     * A prepared formula.
     *
     * @param inputs ids of points by the names of the recipe's inputs
     * @param parameters by name; the usual where one is left out
     * @param withinMinutes how old an input may be, or, of a total, for how long a value stands; an hour if left out
     * @param everyMinutes at which interval it has a reading; whenever an input has one if left out, as all totals have
     */
    record Prepared(
            Recipe recipe,
            Map<String, String> inputs,
            @Nullable Map<String, Double> parameters,
            @Nullable Integer withinMinutes,
            @Nullable Integer everyMinutes)
            implements Formula {
        public Prepared {
            if (recipe == null) {
                throw new IllegalArgumentException("a prepared formula needs its name ('recipe')");
            }
            inputs = ids(inputs);
            parameters = parameters == null ? Map.of() : Map.copyOf(parameters);
            check(withinMinutes, everyMinutes);
            if (everyMinutes != null && recipe.looksBack()) {
                throw new IllegalArgumentException("'" + recipe.title()
                        + "' has a value at each reading of its input; leave the interval ('everyMinutes') out");
            }
        }

        /** With a reading whenever an input has one. */
        public Prepared(
                Recipe recipe,
                Map<String, String> inputs,
                @Nullable Map<String, Double> parameters,
                @Nullable Integer withinMinutes) {
            this(recipe, inputs, parameters, withinMinutes, null);
        }

        /** The numbers that were given. */
        @Override
        public Map<String, Double> parameters() {
            return parameters == null ? Map.of() : parameters;
        }
    }

    /**
     * A formula that somebody wrote, over values in the units of their points, giving one in the unit of the derived
     * point.
     *
     * @param inputs ids of points by the names in the text
     */
    record Written(
            String text,
            Map<String, String> inputs,
            @Nullable Integer withinMinutes,
            @Nullable Integer everyMinutes) implements Formula {
        public Written {
            if (text == null || text.isBlank()) {
                throw new IllegalArgumentException("the formula is empty");
            }
            inputs = ids(inputs);
            check(withinMinutes, everyMinutes);
        }

        /** With a reading whenever an input has one. */
        public Written(String text, Map<String, String> inputs, @Nullable Integer withinMinutes) {
            this(text, inputs, withinMinutes, null);
        }
    }

    /** What the measured points of a selection come to, those that join it later too; not of derived points. */
    record Over(
            Statistic statistic,
            Target.Selection selection,
            @Nullable Integer withinMinutes,
            @Nullable Integer everyMinutes)
            implements Formula {
        public Over {
            if (statistic == null || selection == null) {
                throw new IllegalArgumentException("a formula over a selection needs a statistic and a selection");
            }
            check(withinMinutes, everyMinutes);
        }

        /** With a reading whenever a member has one. */
        public Over(Statistic statistic, Target.Selection selection, @Nullable Integer withinMinutes) {
            this(statistic, selection, withinMinutes, null);
        }
    }

    /**
     * What the values of one point come to over a stretch of time up to each of its readings, such as its mean over 8
     * hours. Limits with the same averaging rule hold for it.
     */
    record OverTime(
            String pointId, Averaging averaging, @Nullable Integer everyMinutes) implements Formula {
        public OverTime {
            if (pointId == null || pointId.isBlank() || averaging == null) {
                throw new IllegalArgumentException("a formula over time needs a point ('pointId') and its averaging");
            }
            if (averaging.rule() == Averaging.Rule.LAST) {
                throw new IllegalArgumentException("a formula over time needs a rule other than the last value");
            }
            check(null, everyMinutes);
        }

        /** With a reading whenever the point has one. */
        public OverTime(String pointId, Averaging averaging) {
            this(pointId, averaging, null);
        }

        /** For how long a value stands follows from the stretch. */
        @Override
        public @Nullable Integer withinMinutes() {
            return null;
        }
    }

    /**
     * The readings of one point that were taken while another had certain values: the vibration while the machine was
     * under load. It has a reading where its point has one, and none for the other point alone.
     *
     * @param whileId the point that decides, such as the operating state or the speed
     * @param is which value it has; null where a range is said
     * @param atLeast from which value of it on, in its unit; null for any
     * @param below below which value of it; null for any
     * @param withinMinutes how old its newest reading may be; an hour if left out
     */
    record While(
            String pointId,
            String whileId,
            @Nullable Double is,
            @Nullable Double atLeast,
            @Nullable Double below,
            @Nullable Integer withinMinutes)
            implements Formula {
        public While {
            if (pointId == null || pointId.isBlank() || whileId == null || whileId.isBlank()) {
                throw new IllegalArgumentException(
                        "readings while something is so need their point ('pointId') and the point that decides ('whileId')");
            }
            if (pointId.equals(whileId)) {
                throw new IllegalArgumentException("the point that decides ('whileId') must be another point");
            }
            if (is != null ? atLeast != null || below != null : atLeast == null && below == null) {
                throw new IllegalArgumentException(
                        "readings while something is so need one value ('is'), or a range ('atLeast', 'below')");
            }
            if (Stream.of(is, atLeast, below).anyMatch(value -> value != null && !Double.isFinite(value))) {
                throw new IllegalArgumentException("'is', 'atLeast' and 'below' must be numbers that can be kept");
            }
            if (atLeast != null && below != null && atLeast >= below) {
                throw new IllegalArgumentException(
                        "the first value ('atLeast') must be less than the one that it stays below ('below')");
            }
            check(withinMinutes, null);
        }

        /** While a point has one value. */
        public static While is(String pointId, String whileId, double value, @Nullable Integer withinMinutes) {
            return new While(pointId, whileId, value, null, null, withinMinutes);
        }

        /** Whether a value of the point that decides lets readings through. */
        public boolean isOpenAt(double value) {
            return is != null ? value == is : (atLeast == null || value >= atLeast) && (below == null || value < below);
        }

        /** It has readings where its point has. */
        @Override
        public @Nullable Integer everyMinutes() {
            return null;
        }
    }

    /** How the values of a point with a formula, or with none, have been averaged. */
    static Averaging averagingOf(@Nullable Formula formula) {
        return formula instanceof OverTime over ? over.averaging() : Averaging.LAST;
    }

    /** How old the newest reading of an input may be. */
    @Nullable
    Integer withinMinutes();

    /** The same, the usual where nothing was said. */
    default int withinMinutesOrUsual() {
        Integer said = withinMinutes();
        return said == null ? USUAL_WITHIN_MINUTES : said;
    }

    /**
     * At which interval there is a reading, at round times (UTC) and of what is known by then; null for whenever an
     * input has one.
     */
    @Nullable
    Integer everyMinutes();

    /** Whether it names a point. */
    default boolean names(String pointId) {
        return switch (this) {
            case Prepared prepared -> prepared.inputs().containsValue(pointId);
            case Written written -> written.inputs().containsValue(pointId);
            case Over over -> false;
            case OverTime over -> over.pointId().equals(pointId);
            case While some -> some.pointId().equals(pointId) || some.whileId().equals(pointId);
        };
    }

    private static Map<String, String> ids(@Nullable Map<String, String> inputs) {
        return Map.copyOf(Optional.ofNullable(inputs).orElse(Map.of()));
    }

    private static void check(@Nullable Integer withinMinutes, @Nullable Integer everyMinutes) {
        if (withinMinutes != null && (withinMinutes < 1 || withinMinutes > LONGEST_WITHIN_MINUTES)) {
            throw new IllegalArgumentException("the times of inputs may lie 1 to " + LONGEST_WITHIN_MINUTES
                    + " minutes apart, not " + withinMinutes);
        }
        if (everyMinutes != null && (everyMinutes < 1 || everyMinutes > LONGEST_EVERY_MINUTES)) {
            throw new IllegalArgumentException(
                    "an interval has 1 to " + LONGEST_EVERY_MINUTES + " minutes, not " + everyMinutes);
        }
    }
}
