package org.openpasture.api.people;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.people.Right;

/**
 * A token by which a program asks in somebody's name.
 *
 * @param id by which it can be withdrawn; it is not the token
 * @param places that it may be used on; none for all
 * @param usedAt its last use, to some minutes; null if it was never used
 * @param token only in the answer that makes it
 */
public record TokenView(
        String id,
        String name,
        Right right,
        List<String> places,
        Instant createdAt,
        Instant until,
        @Nullable Instant usedAt,
        @Nullable String token) {
    @Override
    public String toString() {
        return "TokenView[" + id + "]";
    }
}
