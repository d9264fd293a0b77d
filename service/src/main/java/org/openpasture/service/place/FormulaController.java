package org.openpasture.service.place;

import java.util.Arrays;
import java.util.List;
import org.openpasture.api.place.RecipeView;
import org.openpasture.api.reading.TimeRange;
import org.openpasture.api.record.ComputeRequest;
import org.openpasture.core.access.Access;
import org.openpasture.core.derive.Gallery;
import org.openpasture.core.formula.Recipe;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.series.SeriesSlice;
import org.openpasture.engine.derive.DerivedReadings;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.series.Rewrite;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** Formulas of derived points. */
@RestController
class FormulaController {
    private static final long MOST = 2_000_000;
    private final DerivedReadings derived;
    private final TelemetryStore telemetry;
    private final Reader reader;

    FormulaController(DerivedReadings derived, TelemetryStore telemetry, Reader reader) {
        this.derived = derived;
        this.telemetry = telemetry;
        this.reader = reader;
    }

    /** The prepared formulas, with what each needs. */
    @GetMapping("/api/v1/formulas")
    List<RecipeView> formulas() {
        reader.person();
        return Arrays.stream(Recipe.values()).map(RecipeView::of).toList();
    }

    /** Which derived points could be made of what a place has. */
    @GetMapping("/api/v1/places/{id}/formulas")
    List<Gallery.Proposal> proposals(@PathVariable String id) {
        Access access = reader.access();
        return Gallery.of(
                access.registry(),
                access.registry().pointsOf(reader.place(id).id()).stream()
                        .filter(access::maySee)
                        .toList());
    }

    /**
     * What computing anew did, or would do.
     *
     * @param before readings in the range
     * @param after readings by the formula
     * @param correctionId by which it can be undone; 0 for a dry run or if nothing changes
     */
    record Computed(long before, long after, long correctionId) {}

    /** Computes a derived point anew by its formula over a range of the record; it can be undone. */
    @PostMapping("/api/v1/points/{id}/compute")
    Computed compute(@PathVariable String id, @RequestBody ComputeRequest request) {
        Point point = reader.point(id);
        reader.require(Right.EDIT, point.placeId(), "compute this point anew");
        if (point.formula() == null) {
            throw Problem.conflict(
                    "'" + point.name() + "' is measured, not derived.",
                    "Give it a formula, or read its frames again ('decode again').");
        }
        TimeRange range = new TimeRange(request.from(), request.until());
        if (telemetry.series().estimate(point.number(), range.from(), range.until()) > MOST) {
            throw Problem.invalid("the range has more than " + MOST + " readings; choose a shorter range");
        }
        SeriesSlice before = telemetry.series().range(point.number(), range.from(), range.until());
        SeriesSlice after = derived.anew(point.number(), range.from(), range.until());
        if (after.size() > MOST) {
            throw Problem.invalid("the range comes to more than " + MOST + " readings; choose a shorter range");
        }
        boolean same = Arrays.equals(before.times(), after.times())
                && Arrays.equals(before.values(), after.values())
                && Arrays.equals(before.qualities(), after.qualities());
        if (request.dryRun() || same) {
            return new Computed(before.size(), after.size(), 0);
        }
        Rewrite rewrite = new Rewrite(
                point.number(), range.from().toEpochMilli(), range.until().toEpochMilli(), after);
        String note = request.note() == null ? "computed anew by its formula" : request.note();
        return new Computed(
                before.size(),
                after.size(),
                telemetry.corrections().make(reader.person().name(), note, List.of(rewrite)));
    }
}
