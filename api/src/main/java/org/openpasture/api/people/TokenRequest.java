package org.openpasture.api.people;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.problem.Require;
import org.openpasture.core.people.Right;

/**
 * Makes a token by which a program asks in one's name.
 *
 * @param name what it is for
 * @param right what it may do at most: look, operate or edit; look if left out
 * @param places the sites, areas or assets that it may be used on; all that one may use oneself if left out
 * @param days how long it holds, 365 at most; 90 if left out
 */
public record TokenRequest(
        String name,
        @Nullable Right right,
        @Nullable List<String> places,
        @Nullable Integer days) {
    private static final int MOST_PLACES = 100;

    public TokenRequest {
        name = Require.text(name, "the name", 120);
        right = right == null ? Right.LOOK : right;
        places = places == null ? List.of() : List.copyOf(places);
        days = days == null ? 90 : days;
        if (right == Right.MANAGE) {
            throw new IllegalArgumentException(
                    "An API token can have the permission look, operate or edit. To manage, sign in.");
        }
        if (days < 1 || days > 365) {
            throw new IllegalArgumentException("A token holds for 1 to 365 days, not for " + days + ".");
        }
        if (places.size() > MOST_PLACES) {
            throw new IllegalArgumentException("A token names " + MOST_PLACES + " places at most.");
        }
    }
}
