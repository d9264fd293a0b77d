package org.openpasture.service.report;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.openpasture.api.reading.TimeRange;
import org.openpasture.core.access.Access;
import org.openpasture.core.place.Point;
import org.openpasture.engine.report.PdfReport;
import org.openpasture.engine.report.Report;
import org.openpasture.engine.report.Reports;
import org.openpasture.service.problem.Problem;
import org.openpasture.service.web.Turns;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Component;

/** Makes reports for whoever asks, with what they may see. Only so many are made at once. */
@Component
public class ReportAnswers {
    private static final int MOST_POINTS = 1_000;
    private static final Duration LONGEST = Duration.ofDays(3 * 366L);

    private final Reports reports;
    private final Clock clock;
    private final Turns turns = new Turns(2, "Other reports");

    ReportAnswers(Reports reports, Clock clock) {
        this.reports = reports;
        this.clock = clock;
    }

    /**
     * A report as PDF.
     *
     * @param title of what it is about
     * @param placeId where that is; empty for what spans places
     * @param points that the reader may see, in order
     */
    public ResponseEntity<byte[]> pdf(
            Access access, String title, Optional<String> placeId, List<Point> points, ReportPeriod period) {
        if (points.size() > MOST_POINTS) {
            throw Problem.invalid("A report holds " + MOST_POINTS + " points at most, and here are " + points.size()
                    + ". Make one of an area or an asset in it.");
        }
        Reports.Subject subject = Reports.Subject.of(access, title, placeId, points);
        TimeRange range = period.range(clock.instant(), Reports.zone(access.registry(), placeId, points));
        if (range.length().compareTo(LONGEST) > 0) {
            throw Problem.invalid("A report covers three years at most. Ask for a shorter period.");
        }
        byte[] pdf = turns.take(() -> {
            Report report = reports.of(access.registry(), subject, range.from(), range.until());
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            PdfReport.write(report, out);
            return out.toByteArray();
        });
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_PDF)
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment()
                                .filename("report " + title + ".pdf", StandardCharsets.UTF_8)
                                .build()
                                .toString())
                .body(pdf);
    }
}
