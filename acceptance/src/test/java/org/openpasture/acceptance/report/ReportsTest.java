package org.openpasture.acceptance.report;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openpasture.acceptance.Refusals.refused;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.place.PointRequest;
import org.openpasture.api.place.PointView;
import org.openpasture.client.http.ApiClient;
import org.openpasture.core.people.Right;
import org.openpasture.core.quantity.Quantity;

/** Reports as PDF, over the wire; read back by another library than the one that writes them. */
class ReportsTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static Plant plant;
    private static PointView released;
    private static PointView hidden;

    @BeforeAll
    static void register() {
        plant = new Plant(SERVICE.owner());
        released = point("Gearbox axial", true);
        hidden = point("Gearbox draft", false);
        StringBuilder csv = new StringBuilder("time,point,value\n");
        for (int hour = 0; hour < 48; hour++) {
            String time = "2026-03-%02dT%02d:00:00Z".formatted(1 + hour / 24, hour % 24);
            csv.append("%s,%d,%s%n".formatted(time, released.number(), hour < 24 ? 6 : 2));
            csv.append("%s,%d,%s%n".formatted(time, hidden.number(), 1));
        }
        SERVICE.owner()
                .postCsv(
                        "api/v1/readings/import",
                        new ByteArrayInputStream(csv.toString().getBytes(StandardCharsets.UTF_8)));
        plant.invite(SERVICE.anonymous(), "reader", Right.LOOK, plant.site);
    }

    private static PointView point(String name, boolean seen) {
        return SERVICE.owner()
                .post(
                        "api/v1/points",
                        new PointRequest(
                                name,
                                plant.pump,
                                Quantity.VIBRATION_VELOCITY,
                                null,
                                null,
                                null,
                                null,
                                seen,
                                null,
                                null),
                        PointView.class);
    }

    private static String report(ApiClient who, String path) throws IOException {
        ByteArrayOutputStream pdf = new ByteArrayOutputStream();
        who.download("api/v1/" + path, pdf);
        try (PDDocument read = Loader.loadPDF(pdf.toByteArray())) {
            return new PDFTextStripper().getText(read).replaceAll("\\s+", " ");
        }
    }

    private static final String TWO_DAYS = "/report?from=2026-03-01T00:00:00Z&until=2026-03-03T00:00:00Z";

    @Test
    void aPlacesReportHasFiguresLimitsAndTimeOutsideOfNormal() throws IOException {
        assertThat(report(SERVICE.owner(), "places/" + plant.site + TWO_DAYS))
                .contains("1 of 2 points with limits left the normal range: Gearbox axial")
                .contains("2.00 mm/s 4.00 mm/s 6.00 mm/s 2.00 mm/s 1 d (51 %)")
                .contains("time in zones: A 49 %, C 51 %")
                .contains("ISO 10816-7")
                .contains("No alert was raised");
    }

    @Test
    void aReaderFindsNothingOfWhatIsNotReleased() throws IOException {
        ApiClient reader = SERVICE.signIn("reader");
        assertThat(report(reader, "places/" + plant.site + TWO_DAYS))
                .contains("Gearbox axial")
                .doesNotContain("Gearbox draft")
                .contains("by reader");
    }

    /** Figures, limits and their table; what follows from them, such as the time in zones, is the same. */
    @Test
    void itIsInTheUnitsOfItsReader() throws IOException {
        ApiClient reader = SERVICE.signIn("reader");
        reader.put("api/v1/session/units", Map.of("units", Map.of("vibration-velocity", "in/s")));
        String text = report(reader, "places/" + plant.site + TWO_DAYS);
        reader.put("api/v1/session/units", Map.of("units", Map.of()));
        assertThat(text)
                .contains("0.079 in/s 0.157 in/s 0.236 in/s 0.079 in/s 1 d (51 %)")
                .contains("time in zones: A 49 %, C 51 %")
                .doesNotContain("mm/s");
    }

    @Test
    void aDashboardsReportIsInTheOrderOfItsPanels() throws IOException {
        String dashboard = SERVICE.owner()
                .post("api/v1/dashboards", Map.of("name", "Gears", "pointIds", List.of(hidden.id(), released.id())))
                .path("id")
                .asString();
        String text = report(SERVICE.owner(), "dashboards/" + dashboard + TWO_DAYS);
        assertThat(text.indexOf("Gearbox draft", text.indexOf("Lowest")))
                .isLessThan(text.indexOf("Gearbox axial", text.indexOf("Lowest")));
    }

    @Test
    void aPeriodIsAskedForByTheCalendarOrByItsEnds() throws IOException {
        assertThat(report(SERVICE.owner(), "places/" + plant.site + "/report?last=month"))
                .containsPattern("Report .* 1 \\w{3} \\d{4} 00:00 to 1 \\w{3} \\d{4} 00:00");
        ApiClient owner = SERVICE.owner();
        String path = "api/v1/places/" + plant.site + "/report";
        refused(400, "Say either 'last' or", () -> owner.get(path + "?last=week&from=2026-03-01T00:00:00Z"));
        refused(400, "no period 'fortnight'", () -> owner.get(path + "?last=fortnight"));
        refused(400, "three years at most", () -> owner.get(path + "?from=2020-03-01T00:00:00Z"));
        refused(
                400,
                "ends before it begins",
                () -> owner.get(path + "?from=2026-03-03T00:00:00Z&until=2026-03-01T00:00:00Z"));
        refused(404, "place", () -> owner.get("api/v1/places/gone/report"));
    }
}
