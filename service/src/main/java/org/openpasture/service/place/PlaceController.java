package org.openpasture.service.place;

import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.place.AreaRequest;
import org.openpasture.api.place.AssetRequest;
import org.openpasture.api.place.PlaceView;
import org.openpasture.api.place.SiteRequest;
import org.openpasture.api.reading.LatestView;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.PlaceEdits;
import org.openpasture.core.edit.PlaceWish;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Area;
import org.openpasture.core.place.Asset;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Plan;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Position;
import org.openpasture.core.place.Site;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.vibration.Rotation;
import org.openpasture.engine.point.PointViews;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Editor;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.alert.AlertStore;
import org.openpasture.store.picture.PictureStore;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Sites, areas and assets. */
@RestController
class PlaceController {
    private final PointViews points;
    private final AlertStore alerts;
    private final Reader reader;
    private final Editor editor;
    private final PictureStore pictures;

    PlaceController(PointViews points, AlertStore alerts, Reader reader, Editor editor, PictureStore pictures) {
        this.points = points;
        this.alerts = alerts;
        this.reader = reader;
        this.editor = editor;
        this.pictures = pictures;
    }

    /** The whole tree that the reader may see, parents before children. */
    @GetMapping("/api/v1/places")
    List<PlaceView> places() {
        return places(place -> true);
    }

    /** Those of the reader's places that are wanted; nothing is looked up for the others. */
    private List<PlaceView> places(Predicate<Place> wanted) {
        Access access = reader.access();
        Registry now = access.registry();
        Map<String, Severity> worst = new HashMap<>();
        Map<String, Integer> count = new HashMap<>();
        for (Point point : now.all(Point.class)) {
            List<Place> above =
                    now.pathUp(point.placeId()).stream().filter(wanted).toList();
            if (!above.isEmpty() && access.maySee(point)) {
                Optional<Severity> severity = points.latest(now, point).map(LatestView::severity);
                above.forEach(place -> {
                    severity.ifPresent(one -> worst.merge(place.id(), one, Severity::worse));
                    count.merge(place.id(), 1, Integer::sum);
                });
            }
        }
        Map<String, Integer> open = new HashMap<>();
        alerts.openByPlace().forEach((on, alertsThere) -> {
            if (access.may(Right.LOOK, on)) {
                now.pathUp(on).forEach(place -> open.merge(place.id(), alertsThere, Integer::sum));
            }
        });
        List<Place> all = new ArrayList<>();
        all.addAll(now.all(Site.class));
        all.addAll(now.all(Area.class));
        all.addAll(now.all(Asset.class));
        return all.stream()
                .filter(wanted)
                .filter(access::maySeeSomethingOf)
                .map(place -> view(
                        access,
                        place,
                        worst.get(place.id()),
                        count.getOrDefault(place.id(), 0),
                        open.getOrDefault(place.id(), 0)))
                .toList();
    }

    @GetMapping("/api/v1/places/{id}")
    PlaceView one(@PathVariable String id) {
        return places(place -> place.id().equals(id)).stream().findFirst().orElseThrow(() -> Problem.notFound("place"));
    }

    private static PlaceView view(Access access, Place place, @Nullable Severity severity, int points, int openAlerts) {
        Right right = highest(access, place.id());
        String picture = access.registry()
                .find(Plan.class, place.id())
                .map(Plan::picture)
                .orElse(null);
        return switch (place) {
            case Site site ->
                new PlaceView(
                        site.id(),
                        "site",
                        site.name(),
                        null,
                        null,
                        List.of(),
                        null,
                        "",
                        site.zone().getId(),
                        Optional.ofNullable(site.position())
                                .map(Position::latitude)
                                .orElse(null),
                        Optional.ofNullable(site.position())
                                .map(Position::longitude)
                                .orElse(null),
                        picture,
                        severity,
                        points,
                        openAlerts,
                        right);
            case Area area ->
                new PlaceView(
                        area.id(),
                        "area",
                        area.name(),
                        area.parentId(),
                        null,
                        List.of(),
                        null,
                        "",
                        null,
                        null,
                        null,
                        picture,
                        severity,
                        points,
                        openAlerts,
                        right);
            case Asset asset ->
                new PlaceView(
                        asset.id(),
                        "asset",
                        asset.name(),
                        asset.parentId(),
                        asset.kind(),
                        asset.limitSets(),
                        asset.rotation(),
                        asset.guidance(),
                        null,
                        null,
                        null,
                        picture,
                        severity,
                        points,
                        openAlerts,
                        right);
        };
    }

    private static @Nullable Right highest(Access access, String placeId) {
        Right highest = null;
        for (Right right : Right.values()) {
            if (access.may(right, placeId)) {
                highest = right;
            }
        }
        return highest;
    }

    @PostMapping("/api/v1/sites")
    @ResponseStatus(HttpStatus.CREATED)
    PlaceView makeSite(@RequestBody SiteRequest request) {
        return make(site(Accounts.newId(), request));
    }

    @PutMapping("/api/v1/sites/{id}")
    PlaceView changeSite(@PathVariable String id, @RequestBody SiteRequest request) {
        return change(site(id, request));
    }

    @PostMapping("/api/v1/areas")
    @ResponseStatus(HttpStatus.CREATED)
    PlaceView makeArea(@RequestBody AreaRequest request) {
        return make(area(Accounts.newId(), request));
    }

    @PutMapping("/api/v1/areas/{id}")
    PlaceView changeArea(@PathVariable String id, @RequestBody AreaRequest request) {
        return change(area(id, request));
    }

    @PostMapping("/api/v1/assets")
    @ResponseStatus(HttpStatus.CREATED)
    PlaceView makeAsset(@RequestBody AssetRequest request) {
        return make(asset(Accounts.newId(), request, Rotation.unknown(), ""));
    }

    @PutMapping("/api/v1/assets/{id}")
    PlaceView changeAsset(@PathVariable String id, @RequestBody AssetRequest request) {
        Optional<Asset> before = reader.access().registry().find(Asset.class, id);
        return change(asset(
                id,
                request,
                before.map(Asset::rotation).orElseGet(Rotation::unknown),
                before.map(Asset::guidance).orElse("")));
    }

    /** Removes a place that nothing belongs to any more. */
    @DeleteMapping("/api/v1/places/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String id) {
        editor.edit(access -> PlaceEdits.edit(access, new PlaceWish.Remove(id)));
        pictures.remove(id);
    }

    private PlaceView make(Place place) {
        return edited(place, new PlaceWish.Make(place));
    }

    private PlaceView change(Place place) {
        return edited(place, new PlaceWish.Change(place));
    }

    private PlaceView edited(Place place, PlaceWish wish) {
        Access after = editor.edit(access -> PlaceEdits.edit(access, wish));
        return view(after, place, null, 0, 0);
    }

    private static Site site(String id, SiteRequest request) {
        Position position = request.latitude() == null || request.longitude() == null
                ? null
                : new Position(request.latitude(), request.longitude());
        return new Site(id, request.name(), request.zone() == null ? ZoneId.systemDefault() : request.zone(), position);
    }

    private static Area area(String id, AreaRequest request) {
        return new Area(id, request.name(), request.parentId());
    }

    private static Asset asset(String id, AssetRequest request, Rotation rotation, String guidance) {
        return new Asset(
                id,
                request.name(),
                request.parentId(),
                request.kind() == null ? "" : request.kind(),
                request.limitSets() == null ? List.of() : request.limitSets(),
                request.rotation() == null ? rotation : request.rotation(),
                request.guidance() == null ? guidance : request.guidance().strip());
    }
}
