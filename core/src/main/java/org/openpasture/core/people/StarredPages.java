package org.openpasture.core.people;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.entity.Ids;

/**
 * The pages of the console that a person keeps at hand, and the one that opens first. Whether the person may see what a
 * page is of is asked when it is opened, and what is gone is left out there.
 *
 * @param id of the person
 * @param pages in the order in which they were starred
 * @param start the page that opens first; null for the console's own
 */
public record StarredPages(
        String id, List<Page> pages, @Nullable Page start) implements Entity {
    private static final int MOST = 60;

    public StarredPages {
        pages = pages == null ? List.of() : List.copyOf(pages);
        if (pages.size() > MOST) {
            throw new IllegalArgumentException("more than " + MOST + " pages cannot be starred; remove a star first");
        }
        if (pages.stream().distinct().count() < pages.size()) {
            throw new IllegalArgumentException("a page is starred twice");
        }
    }

    /** Of somebody who has starred nothing. */
    public static StarredPages none(String personId) {
        return new StarredPages(personId, List.of(), null);
    }

    /**
     * A page of the console.
     *
     * @param of the id of what it is of; of a room, its name in the console's address, such as "alerts"
     */
    public record Page(Of kind, String of) {
        public Page {
            if (kind == null || of == null || !of.matches("[A-Za-z0-9-]{1,40}")) {
                throw new IllegalArgumentException("a page has a kind and the id of what it is of");
            }
        }
    }

    /** What a page can be of. */
    public enum Of {
        ROOM("room"),
        PLACE("place"),
        POINT("point"),
        DASHBOARD("dashboard"),
        DEVICE("device");

        private final String id;

        Of(String id) {
            this.id = id;
        }

        @JsonValue
        public String id() {
            return id;
        }

        @JsonCreator
        public static Of of(String id) {
            return Ids.of(values(), Of::id, "kind of page", id);
        }
    }
}
