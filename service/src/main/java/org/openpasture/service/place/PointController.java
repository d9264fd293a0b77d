package org.openpasture.service.place;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.place.PointRequest;
import org.openpasture.api.place.PointView;
import org.openpasture.core.access.Access;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.registry.Change;
import org.openpasture.engine.point.PointViews;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.registry.RegistryStore;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Measuring points. */
@RestController
class PointController {
    private final RegistryStore registry;
    private final PointViews views;
    private final Reader reader;

    PointController(RegistryStore registry, PointViews views, Reader reader) {
        this.registry = registry;
        this.views = views;
        this.reader = reader;
    }

    /**
     * Points that the reader may see, with their newest readings.
     *
     * @param place of this site, area or asset and what lies below it; null for all
     */
    @GetMapping("/api/v1/points")
    List<PointView> list(@RequestParam(required = false) @Nullable String place) {
        Access access = reader.access();
        return access.registry().all(Point.class).stream()
                .filter(access::maySee)
                .filter(point -> place == null
                        || access.registry().pathUp(point.placeId()).stream()
                                .anyMatch(on -> on.id().equals(place)))
                .map(point -> views.view(access.registry(), point))
                .toList();
    }

    /** A point by its id or its number. */
    @GetMapping("/api/v1/points/{id}")
    PointView one(@PathVariable String id) {
        return views.view(reader.now(), reader.point(id));
    }

    @PostMapping("/api/v1/points")
    @ResponseStatus(HttpStatus.CREATED)
    PointView make(@RequestBody PointRequest request) {
        check(request);
        String id = Accounts.newId();
        registry.change(
                reader.person().name(),
                now -> List.of(new Change.Put(point(id, now.highestPointNumber() + 1, request))));
        return one(id);
    }

    @PutMapping("/api/v1/points/{id}")
    PointView change(@PathVariable String id, @RequestBody PointRequest request) {
        Point before = reader.point(id);
        reader.require(Right.EDIT, before.placeId(), "change this point");
        check(request);
        if (before.quantity() != request.quantity()) {
            throw Problem.conflict(
                    "A point keeps its quantity, because its history is in that quantity.",
                    "Make another point instead.");
        }
        registry.change(reader.person().name(), List.of(new Change.Put(point(before.id(), before.number(), request))));
        return one(before.id());
    }

    /** Lets others see the point. */
    @PostMapping("/api/v1/points/{id}/release")
    PointView release(@PathVariable String id) {
        Point point = reader.point(id);
        reader.require(Right.EDIT, point.placeId(), "release this point");
        registry.change(reader.person().name(), List.of(new Change.Put(point.withReleased(true))));
        return one(point.id());
    }

    private void check(PointRequest request) {
        reader.require(Right.EDIT, request.placeId(), "make or move points here");
        if (request.limitSet() != null) {
            LimitSet set = reader.find(LimitSet.class, request.limitSet(), "limit set");
            if (set.quantity() != request.quantity()) {
                throw Problem.invalid("the limit set '" + set.title() + "' is for "
                        + set.quantity().title() + ", not for "
                        + request.quantity().title());
            }
        }
    }

    private static Point point(String id, int number, PointRequest request) {
        Quantity quantity = request.quantity();
        return new Point(
                id,
                number,
                request.name(),
                request.placeId(),
                quantity,
                request.unit() == null ? quantity.unit() : request.unit(),
                request.limitSet(),
                request.direction(),
                request.note(),
                Boolean.TRUE.equals(request.released()));
    }
}
