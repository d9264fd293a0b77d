package org.openpasture.acceptance.reading;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.openpasture.acceptance.Plant;
import org.openpasture.acceptance.RunningService;
import org.openpasture.api.reading.ImportReport;
import org.openpasture.client.http.ServiceProblem;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Readings in by CSV and out again, through the public interface. */
class ReadingsTest {
    @RegisterExtension
    static final RunningService SERVICE = new RunningService();

    private static Plant plant;

    @BeforeAll
    static void register() {
        plant = new Plant(SERVICE.owner());
        plant.pumpSender();
    }

    private static ImportReport bringIn(String csv, boolean dryRun) {
        JsonNode report = SERVICE.owner()
                .postCsv(
                        "api/v1/readings/import?dryRun=" + dryRun,
                        new ByteArrayInputStream(csv.getBytes(StandardCharsets.UTF_8)));
        return JsonMapper.shared().treeToValue(report, ImportReport.class);
    }

    private static JsonNode series(String point, String query) {
        return SERVICE.owner().get("api/v1/points/" + plant.point(point).id() + "/readings?" + query);
    }

    @Test
    void linesThatCannotBeTakenAreReportedAndTheOthersKept() {
        int number = plant.point("Bearing temperature").number();
        String csv = "time,point,value,quality\n"
                + "2026-03-01T08:00:00Z," + number + ",40.5,good\n"
                + "2026-03-01T08:10:00+01:00," + number + ",41,\n"
                + "yesterday," + number + ",1,\n"
                + "2026-03-01T08:20:00Z,9999,1,\n"
                + "2026-03-01T08:30:00Z," + number + ",NaN,\n"
                + "2026-03-01T08:40:00Z," + number + ",-400,\n"
                + "1999-03-01T08:40:00Z," + number + ",4,\n"
                + "2026-03-01T08:50:00Z," + number + "\n";
        ImportReport dry = bringIn(csv, true);
        assertThat(dry.dryRun()).isTrue();
        assertThat(series("Bearing temperature", "from=2026-03-01T00:00:00Z&until=2026-03-02T00:00:00Z")
                        .path("kept")
                        .asInt())
                .isZero();

        ImportReport report = bringIn(csv, false);
        assertThat(report.accepted()).isEqualTo(3);
        assertThat(report.refused()).isEqualTo(5);
        assertThat(report.problems())
                .extracting(ImportReport.LineProblem::reason)
                .containsExactly(
                        "Cannot read 'yesterday' as a time. Use a time such as 2026-03-01T08:15:00+01:00, or choose the time zone of times without an offset.",
                        "no point has the number or id '9999'",
                        "'NaN' is no finite number",
                        "the time 1999-03-01T08:40:00Z lies before 2000 or in the future",
                        "the line has 2 fields, the header names 4");
        assertThat(report.problems().getFirst().line()).isEqualTo(4);
        JsonNode kept = series("Bearing temperature", "from=2026-03-01T00:00:00Z&until=2026-03-02T00:00:00Z");
        assertThat(kept.path("values").valueStream().map(JsonNode::asDouble))
                .as("in the order of their times")
                .containsExactly(41.0, 40.5, -400.0);
    }

    @Test
    void aHeaderWithoutTheColumnsIsExplained() {
        assertThatThrownBy(() -> bringIn("when,what\n1,2\n", false))
                .isInstanceOf(ServiceProblem.class)
                .hasMessage(
                        "the first line must name the columns time, point and value; 'time' is missing. It names: when, what. Say which column is which, or name the point of all lines.");
    }

    @Test
    void aSpikeSurvivesReductionAndTheExportHasEveryReading() throws IOException {
        int number = plant.point("Axial vibration").number();
        Instant start = Instant.parse("2026-02-01T00:00:00Z");
        StringBuilder csv = new StringBuilder("time,point,value\n");
        for (int minute = 0; minute < 20_000; minute++) {
            csv.append(start.plusSeconds(minute * 60L))
                    .append(',')
                    .append(number)
                    .append(',')
                    .append(minute == 7_777 ? 12.5 : 2.0)
                    .append('\n');
        }
        assertThat(bringIn(csv.toString(), false).accepted()).isEqualTo(20_000);
        JsonNode drawn = series("Axial vibration", "from=2026-02-01T00:00:00Z&until=2026-02-20T00:00:00Z&buckets=200");
        assertThat(drawn.path("kept").asInt()).isEqualTo(20_000);
        assertThat(drawn.path("values").size()).isLessThan(500);
        assertThat(drawn.path("values")
                        .valueStream()
                        .mapToDouble(JsonNode::asDouble)
                        .max())
                .hasValue(12.5);

        ByteArrayOutputStream out = new ByteArrayOutputStream();
        SERVICE.owner()
                .download(
                        "api/v1/readings/export?points=" + number
                                + "&from=2026-02-01T00:00:00Z&until=2026-02-20T00:00:00Z",
                        out);
        List<String> lines = out.toString(StandardCharsets.UTF_8).lines().toList();
        assertThat(lines).hasSize(20_001);
        assertThat(lines.getFirst()).isEqualTo("time (Europe/London),point,Whey pump: Axial vibration (mm/s),quality");
        assertThat(lines.get(7_778)).contains("12.5,good");
    }

    @Test
    void aRangeThatEndsBeforeItBeginsIsExplained() {
        assertThatThrownBy(() -> series("Axial vibration", "from=2026-02-02T00:00:00Z&until=2026-02-01T00:00:00Z"))
                .hasMessage("the range ends before it begins.");
        assertThatThrownBy(() -> series("Axial vibration", "from=soon"))
                .hasMessageContaining("'soon' is no value for from");
    }
}
