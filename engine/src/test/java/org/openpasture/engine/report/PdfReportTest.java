package org.openpasture.engine.report;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.openpasture.core.alert.Alert;
import org.openpasture.core.alert.AlertState;
import org.openpasture.core.limit.LimitSet;
import org.openpasture.core.limit.Severity;
import org.openpasture.core.limit.Source;
import org.openpasture.core.limit.Zone;
import org.openpasture.core.logbook.LogEntry;
import org.openpasture.core.people.DisplayUnits;
import org.openpasture.core.place.Point;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.series.Drawn;
import org.openpasture.core.series.PointSeries;
import org.openpasture.core.series.Summarizer;
import org.openpasture.core.series.Summary;
import org.openpasture.store.alert.AlertView;

/** Reports are read back by another library than the one that writes them. */
class PdfReportTest {
    private static final Instant FROM = Instant.parse("2026-11-01T00:00:00Z");
    private static final Instant UNTIL = FROM.plus(Duration.ofDays(7));
    private static final LimitSet COLD = new LimitSet(
            "cold",
            "Cold store",
            new Source("House rule", "2026", "2"),
            Quantity.TEMPERATURE,
            "°C",
            "for what is chilled",
            false,
            List.of(
                    new Zone("good", Severity.NORMAL, null, 8.0, ""),
                    new Zone("warm", Severity.WARNING, 8.0, null, "")));

    private static ReportedPoint point(String name, double... hourly) {
        PointSeries series = new PointSeries();
        for (int i = 0; i < hourly.length; i++) {
            series.add(new Reading(FROM.plus(Duration.ofHours(i)), hourly[i], Quality.GOOD));
        }
        long[] edges = {FROM.toEpochMilli(), UNTIL.toEpochMilli()};
        Summary summary =
                Summary.merge(FROM, new Summarizer(COLD, Duration.ofHours(3).toMillis()).over(series.slice(), edges));
        Point point = new Point(name, 1, name, "store", Quantity.TEMPERATURE, "°C", null, null, null, true);
        return new ReportedPoint(
                point,
                "Dispatch",
                summary,
                new Drawn(series.slice(), hourly.length, List.of()),
                Optional.of(COLD),
                Map.of());
    }

    private static AlertView alert() {
        Instant raised = FROM.plus(Duration.ofHours(30));
        Alert alert = new Alert(
                "r-1",
                "r",
                "Too warm",
                Severity.WARNING,
                "store",
                "p",
                raised.minusSeconds(600),
                raised,
                raised,
                9.1,
                "°C",
                "at most 8 °C",
                "Cold store is too warm",
                "Close the door.",
                "");
        return new AlertView(
                alert,
                AlertState.NORMAL,
                raised.plusSeconds(300),
                "anna",
                raised.plusSeconds(3000),
                7.5,
                raised.plusSeconds(3000),
                null,
                null,
                List.of(),
                List.of(new AlertView.Note(raised.plusSeconds(3000), "anna", "The door stood open.")));
    }

    private static Report report(String title, List<ReportedPoint> points, List<AlertView> alerts) {
        return new Report(
                title,
                List.of("Harrowfell Creamery", title),
                FROM,
                UNTIL,
                ZoneId.of("Europe/London"),
                UNTIL,
                "anna",
                points,
                alerts,
                0,
                List.of(new LogEntry(
                        1, "s", null, null, FROM.plusSeconds(3600), "Door seal changed", "p", "anna", UNTIL, null)),
                List.of(COLD),
                DisplayUnits.asKept("anna"));
    }

    private static byte[] pdf(Report report) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        PdfReport.write(report, out);
        return out.toByteArray();
    }

    private static String text(Report report) throws IOException {
        try (PDDocument read = Loader.loadPDF(pdf(report))) {
            return new PDFTextStripper().getText(read).replaceAll("\\s+", " ");
        }
    }

    @Test
    void saysWhatSomebodyHasToKnowAtItsBegin() throws IOException {
        ReportedPoint warm = point("Store air", 4, 9, 9, 4);
        ReportedPoint silent = point("Store door");
        assertThat(text(report("Cold store", List.of(warm, silent), List.of(alert()))))
                .contains("1 Nov 2026 00:00 to 8 Nov 2026 00:00")
                .contains("1 of 1 points with limits left the normal range: Store air (Dispatch).")
                .contains("1 alert was raised; it is closed.")
                .contains("1 point had no readings: Store door (Dispatch).")
                .contains("4.0 °C 6.5 °C 9.0 °C 4.0 °C 2 h (67 %)")
                .contains("Acknowledged by anna")
                .contains("The door stood open.")
                .contains("Logbook When Who What 1 Nov 2026 01:00 anna Door seal changed")
                .contains("House rule (2026) 2. for what is chilled")
                .contains("good (normal): up to 8 °C; warm (warning): above 8 °C")
                .contains("page 1 of 2");
    }

    @Test
    void saysSoWhereThereIsNothing() throws IOException {
        assertThat(text(report("Empty", List.of(), List.of())))
                .contains("There are no points here that you may see.")
                .contains("No alert was raised in this period.");
    }

    @Test
    void hasAllPointsAndSaysWhereCoursesAreLeftOut() throws IOException {
        List<ReportedPoint> many = IntStream.range(0, PdfReport.MOST_COURSES + 30)
                .mapToObj(i -> point("Point " + i, 1, 2, 3))
                .toList();
        assertThat(text(report("Many", many, List.of())))
                .contains("Point 149")
                .contains("The first 120 of 150 points.");
    }

    @Test
    void takesNamesThatItsTypefaceHasNoLettersFor() throws IOException {
        String odd = "Молочный танк 牛乳 🐄 \u202Eright to left";
        assertThat(text(report(odd, List.of(point(odd, 1, 2)), List.of()))).contains("Молочный танк");
    }

    @Test
    void drawsOneValueAndValuesThatAreAllTheSame() throws IOException {
        List<ReportedPoint> points =
                new ArrayList<>(List.of(point("One", 5), point("Flat", 0, 0, 0), point("Cold", -18, -18)));
        assertThat(text(report("Flat ones", points, List.of()))).contains("-18.0 °C");
    }
}
