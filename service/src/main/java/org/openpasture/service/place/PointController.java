package org.openpasture.service.place;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.openpasture.api.place.PointRequest;
import org.openpasture.api.place.PointView;
import org.openpasture.api.place.StatePartsRequest;
import org.openpasture.core.access.Access;
import org.openpasture.core.edit.PointEdits;
import org.openpasture.core.edit.PointWish;
import org.openpasture.core.edit.StateParts;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Tags;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.engine.point.PointViews;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Editor;
import org.openpasture.service.access.Reader;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
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
    private final PointViews views;
    private final TelemetryStore telemetry;
    private final Reader reader;
    private final Editor editor;

    PointController(PointViews views, TelemetryStore telemetry, Reader reader, Editor editor) {
        this.telemetry = telemetry;
        this.views = views;
        this.reader = reader;
        this.editor = editor;
    }

    /**
     * Points that the reader may see, with their newest readings.
     *
     * @param place of this site, area or asset and what lies below it; null for all
     * @param quantity with this quantity; null for all
     * @param tag with this tag; null for all
     */
    @GetMapping("/api/v1/points")
    List<PointView> list(
            @RequestParam(required = false) @Nullable String place,
            @RequestParam(required = false) @Nullable String quantity,
            @RequestParam(required = false) @Nullable String tag) {
        Quantity of = quantity == null ? null : Quantity.of(quantity);
        Access access = reader.access();
        return access.registry().all(Point.class).stream()
                .filter(access::maySee)
                .filter(point -> place == null || access.registry().isWithin(point.placeId(), place))
                .filter(point -> of == null || point.quantity() == of)
                .filter(point -> tag == null || Tags.contains(point.tags(), tag))
                .map(point -> views.view(access.registry(), point, access::maySee))
                .toList();
    }

    /** A point by its id or its number. */
    @GetMapping("/api/v1/points/{id}")
    PointView one(@PathVariable String id) {
        Access access = reader.access();
        return views.view(access.registry(), reader.point(id), access::maySee);
    }

    @PostMapping("/api/v1/points")
    @ResponseStatus(HttpStatus.CREATED)
    PointView make(@RequestBody PointRequest request) {
        String id = Accounts.newId();
        return edited(id, new PointWish.Make(id, properties(request), telemetry.highestPoint()));
    }

    @PutMapping("/api/v1/points/{id}")
    PointView change(@PathVariable String id, @RequestBody PointRequest request) {
        String known = reader.point(id).id();
        boolean hasReadings = telemetry.isKept(reader.point(id).number());
        return edited(known, new PointWish.Change(known, properties(request), hasReadings));
    }

    /** Lets others see the point. */
    @PostMapping("/api/v1/points/{id}/release")
    PointView release(@PathVariable String id) {
        String known = reader.point(id).id();
        return edited(known, new PointWish.Release(known));
    }

    /**
     * Sorts the readings of points by the state that this point says: each point and state gets a derived point of its
     * own. All are made, or none; those that are there already are left as they are.
     *
     * @return the points that hold the readings of each state, by point and state in the order of the request
     */
    @PostMapping("/api/v1/points/{id}/states")
    @ResponseStatus(HttpStatus.CREATED)
    List<PointView> sort(@PathVariable String id, @RequestBody StatePartsRequest request) {
        StateParts.Wish wish = new StateParts.Wish(
                reader.point(id).id(),
                request.pointIds().stream().map(one -> reader.point(one).id()).toList(),
                request.states().stream()
                        .map(StatePartsRequest.StateRequest::state)
                        .toList(),
                request.withinMinutes());
        Access after = editor.edit(access -> StateParts.edit(access, wish, telemetry.highestPoint(), Accounts::newId));
        return StateParts.of(after, wish).stream()
                .map(point -> views.view(after.registry(), point, after::maySee))
                .toList();
    }

    /** Removes a point that nothing hangs on any more and that has no readings. */
    @DeleteMapping("/api/v1/points/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String id) {
        Point point = reader.point(id);
        boolean hasReadings = telemetry.isKept(point.number());
        editor.edit(access -> PointEdits.edit(access, new PointWish.Remove(point.id(), hasReadings)));
    }

    private PointView edited(String id, PointWish wish) {
        editor.edit(access -> PointEdits.edit(access, wish));
        return one(id);
    }

    private static PointWish.Properties properties(PointRequest request) {
        return new PointWish.Properties(
                request.name(),
                request.placeId(),
                request.quantity(),
                request.unit(),
                request.limitSet(),
                request.direction(),
                request.note(),
                Boolean.TRUE.equals(request.released()),
                request.formula(),
                request.tags(),
                request.shown());
    }
}
