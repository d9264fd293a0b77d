package org.openpasture.api.place;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.edit.StateParts;
import org.openpasture.core.formula.Formula;

/**
 * Points whose readings are to be sorted by the state of their machine.
 *
 * @param pointIds the points, by id or number; each gets one for each state
 * @param states by the values of the point that says the state
 * @param withinMinutes how old the state may be where a reading is sorted by it; 60 if left out
 */
public record StatePartsRequest(
        List<String> pointIds,
        List<StateRequest> states,
        @Nullable Integer withinMinutes) {
    private static final int LONGEST_STATE = 40;

    public StatePartsRequest {
        pointIds = List.copyOf(Require.present(pointIds, "the points ('pointIds')"));
        states = List.copyOf(Require.present(states, "the states"));
        Integer within = withinMinutes;
        states.forEach(one -> check(one, within));
    }

    private static void check(StateRequest state, @Nullable Integer withinMinutes) {
        // What a formula refuses is refused here already.
        new Formula.While("point", "state", state.is(), state.atLeast(), state.below(), withinMinutes);
    }

    /**
     * A state: one value, or a range.
     *
     * @param name what it is called, such as "under load"
     * @param is the one value
     * @param atLeast from which value on
     * @param below below which value
     */
    public record StateRequest(
            String name,
            @Nullable Double is,
            @Nullable Double atLeast,
            @Nullable Double below) {
        public StateRequest {
            name = Require.text(name, "the name of the state", LONGEST_STATE);
        }

        /** As what is edited. */
        public StateParts.State state() {
            return new StateParts.State(name, is, atLeast, below);
        }
    }
}
