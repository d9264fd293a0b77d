package org.openpasture.core.packing;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.openpasture.core.access.Access;
import org.openpasture.core.dashboard.Dashboard;
import org.openpasture.core.edit.DashboardEdits;
import org.openpasture.core.edit.DashboardWish;
import org.openpasture.core.edit.Edited;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.edit.Rights;
import org.openpasture.core.edit.RuleEdits;
import org.openpasture.core.edit.RuleWish;
import org.openpasture.core.entity.Entity;
import org.openpasture.core.pack.Content;
import org.openpasture.core.pack.ImportedPack;
import org.openpasture.core.people.Right;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.rule.Rule;

/**
 * Takes an imported pack back: its rules and dashboards that say what they said then are removed. Limit sets and device
 * models stay, since others may use them by now.
 */
public final class PackRemoval {
    private PackRemoval() {}

    /** The changes, or why there are none. */
    public static Edited edit(Access access, String id) {
        Optional<ImportedPack> found = access.registry().find(ImportedPack.class, id);
        if (found.isEmpty()) {
            return Refused.unknown("pack");
        }
        ImportedPack pack = found.get();
        Optional<Refused> refused = right(access, pack);
        if (refused.isPresent()) {
            return refused.get();
        }
        List<Change> steps = new ArrayList<>();
        for (ImportedPack.Item item : pack.items().values()) {
            Optional<Edited> edited = unchanged(access, Rule.class, item)
                    .map(rule -> RuleEdits.edit(access, new RuleWish.Remove(rule.id())))
                    .or(() -> unchanged(access, Dashboard.class, item)
                            .map(board -> DashboardEdits.edit(access, new DashboardWish.Remove(board.id()))));
            switch (edited.orElse(new Edited.Changes(List.of()))) {
                case Refused not -> {
                    return not;
                }
                case Edited.Changes changes -> steps.addAll(changes.steps());
            }
        }
        steps.add(new Change.Remove(Kind.PACK, id));
        return new Edited.Changes(steps);
    }

    /** Whether somebody sees an import: who sees something of its site, or who manages the instance if it has none. */
    public static boolean maySee(Access access, ImportedPack pack) {
        return pack.siteId() == null
                ? access.mayManageInstance()
                : access.registry()
                        .place(pack.siteId())
                        .filter(access::maySeeSomethingOf)
                        .isPresent();
    }

    private static Optional<Refused> right(Access access, ImportedPack pack) {
        if (!maySee(access, pack)) {
            return Optional.of(Refused.unknown("pack"));
        }
        boolean everyPlace = !pack.places().isEmpty()
                && pack.places().values().stream().allMatch(place -> access.may(Right.EDIT, place));
        return everyPlace || pack.siteId() == null
                ? Optional.empty()
                : Rights.onSite(access, Right.EDIT, pack.siteId(), "take this pack back");
    }

    private static <T extends Entity> Optional<T> unchanged(Access access, Class<T> type, ImportedPack.Item item) {
        return access.registry().find(type, item.id()).filter(thing -> Content.of(thing)
                .equals(item.content()));
    }
}
