package org.openpasture.service.place;

import java.time.Clock;
import java.time.Instant;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.openpasture.api.baseline.BaselineChange;
import org.openpasture.api.baseline.BaselineRequest;
import org.openpasture.api.baseline.BaselineView;
import org.openpasture.core.access.Access;
import org.openpasture.core.baseline.Baseline;
import org.openpasture.core.baseline.Outcome;
import org.openpasture.core.baseline.Spread;
import org.openpasture.core.edit.BaselineEdits;
import org.openpasture.core.edit.BaselineWish;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.place.Point;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.registry.Registry;
import org.openpasture.engine.baseline.Baselines;
import org.openpasture.service.access.Accounts;
import org.openpasture.service.access.Editor;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Baselines: what points measured while the condition of their machine was known. */
@RestController
class BaselineController {
    /** A change beyond so much of the limit is significant (ISO 20816-1, criterion II). */
    private static final double SIGNIFICANT_PERCENT = 25;

    private final Baselines baselines;
    private final TelemetryStore telemetry;
    private final Reader reader;
    private final Editor editor;
    private final Clock clock;

    BaselineController(Baselines baselines, TelemetryStore telemetry, Reader reader, Editor editor, Clock clock) {
        this.baselines = baselines;
        this.telemetry = telemetry;
        this.reader = reader;
        this.editor = editor;
        this.clock = clock;
    }

    /** The baselines of a point, the reference first, then the newest. */
    @GetMapping("/api/v1/points/{id}/baselines")
    List<BaselineView> ofPoint(@PathVariable String id) {
        Point point = reader.point(id);
        Registry now = reader.now();
        return now.baselinesOf(point.id()).stream()
                .sorted(Comparator.comparing(Baseline::reference)
                        .thenComparing(Baseline::madeAt)
                        .reversed())
                .map(baseline -> view(now, point, baseline))
                .toList();
    }

    /** One baseline. */
    @GetMapping("/api/v1/baselines/{id}")
    BaselineView one(@PathVariable String id) {
        Access access = reader.access();
        Baseline baseline = access.registry().find(Baseline.class, id).orElseThrow(() -> Problem.notFound("baseline"));
        Point point = access.registry()
                .find(Point.class, baseline.pointId())
                .filter(access::maySee)
                .orElseThrow(() -> Problem.notFound("baseline"));
        return view(access.registry(), point, baseline);
    }

    /** Records baselines. What they replace as reference is kept, and can be made the reference again. */
    @PostMapping("/api/v1/baselines")
    @ResponseStatus(HttpStatus.CREATED)
    List<BaselineView> make(@RequestBody BaselineRequest request) {
        Instant from = request.from() == null ? clock.instant() : request.from();
        Instant until =
                request.until() == null ? from.plusSeconds(Objects.requireNonNull(request.seconds())) : request.until();
        boolean good = !Boolean.FALSE.equals(request.good());
        List<Point> points =
                request.pointIds().stream().map(reader::point).distinct().toList();
        BaselineWish.Properties properties = new BaselineWish.Properties(
                request.name(),
                good,
                request.reference() == null ? good : request.reference(),
                String.valueOf(request.note()));
        Map<String, BaselineWish.Made> ids = new LinkedHashMap<>();
        points.forEach(point -> ids.put(point.id(), new BaselineWish.Made(Accounts.newId(), new Outcome.Recording())));
        Instant now = clock.instant();
        editor.check(access -> BaselineEdits.edit(access, new BaselineWish.Make(ids, properties, from, until), now));
        points.forEach(point -> ids.computeIfPresent(
                point.id(),
                (id, made) -> new BaselineWish.Made(made.id(), baselines.outcome(reader.now(), point, from, until))));
        Access after = editor.edit(
                access -> BaselineEdits.edit(access, new BaselineWish.Make(ids, properties, from, until), now));
        return points.stream()
                .flatMap(point -> after
                        .registry()
                        .find(
                                Baseline.class,
                                Objects.requireNonNull(ids.get(point.id())).id())
                        .map(baseline -> view(after.registry(), point, baseline))
                        .stream())
                .toList();
    }

    /** Changes the name, condition or note of a baseline, or makes it the reference. */
    @PutMapping("/api/v1/baselines/{id}")
    BaselineView change(@PathVariable String id, @RequestBody BaselineChange request) {
        BaselineWish wish = new BaselineWish.Change(
                id,
                new BaselineWish.Properties(
                        request.name(), request.good(), request.reference(), String.valueOf(request.note())));
        editor.edit(access -> BaselineEdits.edit(access, wish, clock.instant()));
        return one(id);
    }

    /** Removes a baseline. */
    @DeleteMapping("/api/v1/baselines/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String id) {
        editor.edit(access -> BaselineEdits.edit(access, new BaselineWish.Remove(id), clock.instant()));
    }

    private BaselineView view(Registry now, Point point, Baseline baseline) {
        return new BaselineView(
                baseline.id(),
                point.id(),
                point.number(),
                point.name(),
                point.unit(),
                baseline.name(),
                baseline.good(),
                baseline.reference(),
                baseline.from(),
                baseline.until(),
                switch (baseline.outcome()) {
                    case Outcome.Recording recording -> "recording";
                    case Outcome.Known known -> "known";
                    case Outcome.Unusable unusable -> "unusable";
                },
                baseline.outcome() instanceof Outcome.Unusable(String reason) ? reason : "",
                baseline.spread().orElse(null),
                baseline.spread()
                        .flatMap(spread -> comparison(now, point, spread))
                        .orElse(null),
                baseline.by(),
                baseline.madeAt(),
                baseline.note());
    }

    private Optional<BaselineView.Comparison> comparison(Registry now, Point point, Spread spread) {
        Optional<Double> limit = now.limitsOf(point)
                .map(LimitSet::warningLimit)
                .flatMap(found ->
                        found.stream().boxed().filter(value -> value != 0).findFirst());
        return telemetry
                .series()
                .last(point.number())
                .filter(last -> last.quality() != Quality.BAD)
                .map(last -> {
                    double difference = last.value() - spread.median();
                    Optional<Double> percent = limit.map(value -> 100 * difference / Math.abs(value));
                    return new BaselineView.Comparison(
                            last.time(),
                            last.value(),
                            difference,
                            percent.orElse(null),
                            spread.isUsual(last.value()),
                            percent.map(of -> Math.abs(of) > SIGNIFICANT_PERCENT)
                                    .orElse(null));
                });
    }
}
