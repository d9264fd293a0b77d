package org.openpasture.service.report;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.openpasture.core.access.Access;
import org.openpasture.core.place.Place;
import org.openpasture.core.place.Point;
import org.openpasture.core.rule.PointSelection;
import org.openpasture.service.access.Reader;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Reports of places. */
@RestController
class ReportController {
    private final Reader reader;
    private final ReportAnswers answers;

    ReportController(Reader reader, ReportAnswers answers) {
        this.reader = reader;
        this.answers = answers;
    }

    /**
     * A report as PDF: what all points of a site, area or asset did over a period, worst first, with their courses, the
     * alerts with what was done, and the limits with their sources.
     *
     * @param last day, week, month or year: the last one that is over, by the calendar of the site
     * @param from instead; null for seven days before {@code until}
     * @param until null for now
     */
    @GetMapping("/api/v1/places/{id}/report")
    ResponseEntity<byte[]> report(
            @PathVariable String id,
            @RequestParam(required = false) @Nullable String last,
            @RequestParam(required = false) @Nullable Instant from,
            @RequestParam(required = false) @Nullable Instant until) {
        Place place = reader.place(id);
        Access access = reader.access();
        List<Point> points = access.registry().pointsOf(new PointSelection(place.id(), null, null, null)).stream()
                .filter(access::maySee)
                .toList();
        return answers.pdf(access, place.name(), Optional.of(place.id()), points, ReportPeriod.of(last, from, until));
    }
}
