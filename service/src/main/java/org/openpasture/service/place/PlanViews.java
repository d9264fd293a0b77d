package org.openpasture.service.place;

import java.util.Optional;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.openpasture.api.place.PlanView;
import org.openpasture.core.access.Access;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Plan;
import org.openpasture.core.place.PlanMark;
import org.openpasture.core.place.Point;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.point.PointViews;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.picture.PictureStore;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Component;

/** How pictures of places are shown: with the marks that whoever looks may see. */
@Component
public class PlanViews {
    /** What a drawing may do where a browser opens it by itself: nothing but draw. */
    private static final String NOTHING_BUT_DRAW =
            "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox";

    private final PictureStore pictures;
    private final PointViews points;

    PlanViews(PictureStore pictures, PointViews points) {
        this.pictures = pictures;
        this.points = points;
    }

    /** The picture of a place that somebody may look at. */
    public PlanView view(Access access, String placeId) {
        Registry now = access.registry();
        Plan plan = now.find(Plan.class, placeId).orElseThrow(() -> Problem.notFound("picture"));
        return new PlanView(
                placeId,
                now.place(placeId).map(Place::name).orElse(""),
                plan.picture(),
                plan.width(),
                plan.height(),
                plan.marks().stream()
                        .flatMap(mark -> mark(access, mark).stream())
                        .toList());
    }

    private Optional<PlanView.MarkView> mark(Access access, PlanMark mark) {
        Registry now = access.registry();
        return switch (mark) {
            case PlanMark.OfPoint of ->
                now.find(Point.class, of.id())
                        .filter(access::maySee)
                        .map(point -> new PlanView.MarkView("point", of.id(), point.name(), of.x(), of.y(), null));
            case PlanMark.OfPlace of ->
                now.place(of.id())
                        .filter(place -> access.may(Right.LOOK, place.id()))
                        .map(place -> new PlanView.MarkView(
                                "place",
                                of.id(),
                                place.name(),
                                of.x(),
                                of.y(),
                                worst(now, of.id(), access::maySee).orElse(null)));
        };
    }

    private Optional<Severity> worst(Registry now, String placeId, Predicate<Point> visible) {
        Stream<Point> below = now.all(Point.class).stream()
                .filter(point -> now.isWithin(point.placeId(), placeId))
                .filter(visible);
        return below.flatMap(point -> points.latest(now, point).stream())
                .flatMap(latest -> Optional.ofNullable(latest.severity()).stream())
                .reduce(Severity::worse);
    }

    /** The picture itself; its address changes with it, so that a browser may keep it. */
    public ResponseEntity<byte[]> picture(String placeId) {
        PictureStore.Kept kept = pictures.find(placeId).orElseThrow(() -> Problem.notFound("picture"));
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType(kept.type()))
                .cacheControl(CacheControl.maxAge(java.time.Duration.ofDays(1)).cachePrivate())
                .eTag('"' + kept.digest() + '"')
                .header("Content-Security-Policy", NOTHING_BUT_DRAW)
                .body(kept.content());
    }
}
