package org.openpasture.service.record;

import java.time.Instant;
import java.util.List;
import org.openpasture.api.reading.TimeRange;
import org.openpasture.api.record.CorrectionView;
import org.openpasture.api.record.EraseRequest;
import org.openpasture.core.access.Access;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.series.PointSeries;
import org.openpasture.core.series.SeriesSlice;
import org.openpasture.service.access.Reader;
import org.openpasture.service.problem.Problem;
import org.openpasture.store.series.Rewrite;
import org.openpasture.store.telemetry.Corrections.Correction;
import org.openpasture.store.telemetry.TelemetryStore;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** Changes in the record: ranges that are erased, what was computed anew, and how to take that back. */
@RestController
class CorrectionController {
    private static final long MOST = 2_000_000;
    private final TelemetryStore telemetry;
    private final Reader reader;

    CorrectionController(TelemetryStore telemetry, Reader reader) {
        this.telemetry = telemetry;
        this.reader = reader;
    }

    /**
     * What an erasure did, or would do.
     *
     * @param readings in the range
     * @param correctionId by which it can be undone; 0 for a dry run or if there were no readings
     * @param waveforms in the range; they cannot be brought back
     */
    record Erased(long readings, long correctionId, int waveforms) {}

    @PostMapping("/api/v1/points/{id}/erase")
    Erased erase(@PathVariable String id, @RequestBody EraseRequest request) {
        Point point = reader.point(id);
        reader.require(Right.EDIT, point.placeId(), "erase readings of this point");
        TimeRange range = new TimeRange(request.from(), request.until());
        if (telemetry.series().estimate(point.number(), range.from(), range.until()) > MOST) {
            throw Problem.invalid("that are more than " + MOST + " readings at once; erase a shorter range");
        }
        SeriesSlice present = telemetry.series().range(point.number(), range.from(), range.until());
        if (request.dryRun()) {
            int waveforms = telemetry
                    .waveforms()
                    .list(point.number(), range.from(), range.until(), Integer.MAX_VALUE)
                    .size();
            return new Erased(present.size(), 0, waveforms);
        }
        int waveforms = telemetry.eraseWaveforms(point.number(), range.from(), range.until());
        if (present.size() == 0) {
            return new Erased(0, 0, waveforms);
        }
        Rewrite rewrite = new Rewrite(
                point.number(), present.times()[0], present.times()[present.size() - 1] + 1, SeriesSlice.empty());
        return new Erased(
                present.size(),
                telemetry.corrections().make(reader.person().name(), request.note(), List.of(rewrite)),
                waveforms);
    }

    /** Changes of points that the reader may see all of, the newest first. */
    @GetMapping("/api/v1/corrections")
    List<CorrectionView> list() {
        Access access = reader.access();
        return telemetry.corrections().list().stream()
                .filter(change -> mayAll(access, change, Right.LOOK))
                .map(change -> view(access, change))
                .toList();
    }

    private static boolean mayAll(Access access, Correction change, Right right) {
        return change.points().stream().allMatch(number -> access.registry()
                .point(number)
                .map(point -> access.may(right, point.placeId()))
                .orElse(access.mayManageInstance()));
    }

    private static CorrectionView view(Access access, Correction change) {
        return new CorrectionView(
                change.id(),
                change.at(),
                change.person(),
                change.note(),
                change.points().stream()
                        .map(number ->
                                access.registry().point(number).map(Point::name).orElse("point " + number))
                        .toList(),
                change.from(),
                change.until(),
                change.before(),
                change.after(),
                change.undoneAt(),
                change.undoneBy());
    }

    /** Puts back what was there before; readings that came in meanwhile stay. */
    @PostMapping("/api/v1/corrections/{id}/undo")
    CorrectionView undo(@PathVariable long id) {
        Access access = reader.access();
        Correction change = telemetry
                .corrections()
                .find(id)
                .filter(found -> mayAll(access, found, Right.LOOK))
                .orElseThrow(() -> Problem.notFound("change"));
        if (!mayAll(access, change, Right.EDIT)) {
            throw Problem.forbidden("undo this change");
        }
        if (!telemetry.corrections().undo(id, reader.person().name())) {
            throw Problem.conflict("This change was undone already.", "Nothing is left to do.");
        }
        return view(access, telemetry.corrections().find(id).orElse(change));
    }

    /** A value that another one of the same moment took the place of. */
    record ReplacedView(Instant time, double value, double by) {}

    @GetMapping("/api/v1/points/{id}/replaced")
    List<ReplacedView> replaced(@PathVariable String id) {
        return telemetry.replacedReadings(reader.point(id).number()).stream()
                .map(CorrectionController::view)
                .toList();
    }

    private static ReplacedView view(PointSeries.Replaced replaced) {
        return new ReplacedView(replaced.old().time(), replaced.old().value(), replaced.by());
    }
}
