package org.openpasture.core.packing;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.edit.Edited;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.pack.Pack;
import org.openpasture.core.registry.Change;

/**
 * What becomes of a pack here: shown before it is imported, and done as it was shown or not at all.
 *
 * @param importId under which it is remembered then; null if nothing of it is imported
 * @param siteId to which it belongs then; null for all sites
 * @param again whether it was imported for the same places before
 * @param steps the changes, in their order
 */
public record PackPlan(
        Pack pack,
        @Nullable String importId,
        @Nullable String siteId,
        boolean again,
        List<PlaceMatch> places,
        List<PointMatch> points,
        List<Part> parts,
        List<Change> steps) {
    public PackPlan {
        places = List.copyOf(places);
        points = List.copyOf(points);
        parts = List.copyOf(parts);
        steps = List.copyOf(steps);
    }

    /** The place here that stands for one of the pack's; null for none yet. */
    public record PlaceMatch(
            Pack.NeededPlace needed, @Nullable String placeId) {}

    /** The point here that stands for one of the pack's; null for none yet. */
    public record PointMatch(
            Pack.NeededPoint needed, @Nullable String pointId) {}

    /**
     * What becomes of one part.
     *
     * @param key its kind and key, "rule/too-warm"
     * @param name what people call it
     * @param why in a sentence or two, where that does not follow from its fate; else empty
     */
    public record Part(String key, String name, Fate fate, String why) {}

    /** What becomes of a part. */
    public enum Fate {
        /** It is made. */
        NEW,
        /** It was imported before, nobody changed it here, and the pack has something newer. */
        UPDATED,
        /** It is here as in the pack. */
        SAME,
        /** It was changed here and stays so. */
        CHANGED_HERE,
        /** It was imported before and removed here; it is not made again. */
        REMOVED_HERE,
        /** It came with an earlier edition and is no longer in the pack; it stays. */
        NOT_IN_PACK,
        /** It is not wanted. */
        LEFT_OUT,
        /** It cannot be imported as things are: the whole pack is not, unless it is left out. */
        IMPOSSIBLE;

        @JsonValue
        public String id() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }
    }

    /** Whether everything that is wanted of it can be imported. */
    public boolean isPossible() {
        return parts.stream().noneMatch(part -> part.fate() == Fate.IMPOSSIBLE);
    }

    /** The changes, or why nothing is changed. */
    public Edited edited() {
        Optional<Part> first =
                parts.stream().filter(part -> part.fate() == Fate.IMPOSSIBLE).findFirst();
        return first.<Edited>map(part -> Refused.clash(
                        "'" + part.name() + "' cannot be imported. " + part.why(),
                        "Correct this, or leave the part out ('" + part.key() + "')."))
                .orElseGet(() -> new Edited.Changes(steps));
    }
}
