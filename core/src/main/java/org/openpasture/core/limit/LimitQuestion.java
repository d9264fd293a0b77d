package org.openpasture.core.limit;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A question on the way to the limit set that fits. Somebody who does not know the standards answers what they do know:
 * what the thing is, how large, and how it stands.
 *
 * @param id by which an answer leads to it
 * @param hint how to tell the answers apart; empty where that is plain
 */
public record LimitQuestion(String id, String text, String hint, List<Answer> answers) {
    public LimitQuestion {
        hint = hint == null ? "" : hint;
        answers = List.copyOf(answers);
    }

    /**
     * An answer: it leads to the next question, or to the sets that fit.
     *
     * @param id different for each answer of a question
     * @param because what follows from it, and by which standard; empty if nothing does yet
     * @param then the id of the next question; null at the end
     * @param sets ids of the limit sets that fit, several where they are for different things; none if no set that
     *     ships does, for which the reason says what to do instead
     */
    public record Answer(
            String id,
            String text,
            String because,
            @Nullable String then,
            List<String> sets) {
        public Answer {
            because = because == null ? "" : because;
            sets = sets == null ? List.of() : List.copyOf(sets);
        }
    }
}
