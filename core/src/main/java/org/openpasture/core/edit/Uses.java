package org.openpasture.core.edit;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.entity.Entity;

/** What hangs on a thing that somebody wishes to remove. */
final class Uses {
    private final List<String> words = new ArrayList<>();

    /** Counts those that use it. */
    <T extends Entity> Uses count(String what, Collection<T> all, Predicate<T> uses) {
        long count = all.stream().filter(uses).count();
        if (count > 0) {
            words.add(count + " " + what + (count == 1 ? "" : "s"));
        }
        return this;
    }

    /** Refuses to remove what is in use, and says by what. */
    Optional<Refused> refusal(String name) {
        return words.isEmpty()
                ? Optional.empty()
                : Optional.of(Refused.clash(
                        "'" + name + "' is still in use: " + String.join(", ", words) + ".",
                        "Move or remove what belongs to it first."));
    }
}
