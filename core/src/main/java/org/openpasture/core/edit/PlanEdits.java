package org.openpasture.core.edit;

import java.util.List;
import java.util.Optional;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.Edited.Changes;
import org.openpasture.core.edit.Edited.Refused;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Plan;
import org.openpasture.core.place.PlanMark;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.Change;
import org.openpasture.core.registry.Kind;
import org.openpasture.core.registry.Registry;

/** Changes of pictures of places and of the marks on them. */
public final class PlanEdits {
    private PlanEdits() {}

    /**
     * What becomes of a wish.
     *
     * @param access what is registered, and what the person who wishes may do
     */
    public static Edited edit(Access access, PlanWish wish) {
        String placeId = wish.placeId();
        Optional<Plan> before = access.registry().find(Plan.class, placeId);
        Optional<Refused> refusal = Rights.on(access, Right.EDIT, placeId, "change the picture of this place");
        return Edited.unless(refusal, () -> switch (wish) {
            case PlanWish.Show show ->
                Changes.put(new Plan(
                        placeId,
                        show.picture(),
                        show.width(),
                        show.height(),
                        before.map(Plan::marks).orElse(List.of())));
            case PlanWish.Place place ->
                before.isEmpty()
                        ? Refused.clash("This place has no picture.", "Add a picture first.")
                        : Edited.unless(
                                marks(access.registry(), placeId, place.marks()),
                                () -> Changes.put(new Plan(
                                        placeId,
                                        before.get().picture(),
                                        before.get().width(),
                                        before.get().height(),
                                        place.marks())));
            case PlanWish.Remove remove ->
                before.isEmpty()
                        ? Refused.unknown("picture")
                        : new Changes(List.of(new Change.Remove(Kind.PLAN, placeId)));
        });
    }

    private static Optional<Refused> marks(Registry now, String placeId, List<PlanMark> marks) {
        if (marks.size() > Plan.MOST_MARKS) {
            return Optional.of(Refused.invalid(
                    "A picture has " + Plan.MOST_MARKS + " marks at most.", "Use pictures of the places below."));
        }
        if (marks.stream().map(PlanMark::id).distinct().count() < marks.size()) {
            return Optional.of(Refused.invalid("Something is marked twice.", "Remove one of the marks."));
        }
        return marks.stream().allMatch(mark -> isBelow(now, placeId, mark))
                ? Optional.empty()
                : Optional.of(Refused.invalid(
                        "Something is marked that does not belong to this place.",
                        "Mark points and places that lie below it."));
    }

    private static boolean isBelow(Registry now, String placeId, PlanMark mark) {
        return switch (mark) {
            case PlanMark.OfPoint of ->
                now.find(Point.class, of.id())
                        .filter(point -> now.isWithin(point.placeId(), placeId))
                        .isPresent();
            case PlanMark.OfPlace of ->
                !of.id().equals(placeId) && now.place(of.id()).isPresent() && now.isWithin(of.id(), placeId);
        };
    }
}
