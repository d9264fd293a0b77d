package org.openpasture.engine.importing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openpasture.api.reading.ImportReport;
import org.openpasture.core.access.Access;
import org.openpasture.core.people.Grant;
import org.openpasture.core.people.Person;
import org.openpasture.core.people.Right;
import org.openpasture.core.place.Point;
import org.openpasture.core.place.Site;
import org.openpasture.core.quantity.Quantity;
import org.openpasture.core.reading.Quality;
import org.openpasture.core.reading.Reading;
import org.openpasture.core.registry.Registry;
import org.openpasture.core.series.SeriesSlice;
import org.openpasture.engine.TestClock;
import org.openpasture.store.secret.SecretBox;
import org.openpasture.store.telemetry.TelemetryStore;

class ImportTest {
    private static final Person TECHNICIAN = new Person("tech", "Technician", "t@example.org", false);
    private static final Registry REGISTRY = Registry.of(List.of(
            new Site("s", "Farm", ZoneId.of("Europe/Paris"), null),
            new Site("other", "Neighbour", ZoneId.of("Europe/Paris"), null),
            TECHNICIAN,
            new Grant("g", "tech", Right.EDIT, "s"),
            new Grant("h", "tech", Right.LOOK, "other"),
            point("a", 1, "s", Quantity.TEMPERATURE, "°C"),
            point("b", 2, "s", Quantity.VIBRATION_VELOCITY, "mm/s"),
            point("c", 3, "other", Quantity.TEMPERATURE, "°C")));
    private static final CsvImport.Columns AS_NAMED = new CsvImport.Columns(null, null, null, null, null, null);

    private final TestClock clock = new TestClock();
    private TelemetryStore store;

    private static Point point(String id, int number, String place, Quantity quantity, String unit) {
        return new Point(id, number, "Point " + number, place, quantity, unit, null, null, null, true);
    }

    @BeforeEach
    void open(@TempDir Path folder) {
        clock.pass(java.time.Duration.between(clock.instant(), Instant.parse("2026-06-01T12:00:00Z")));
        store = TelemetryStore.open(folder, SecretBox.withKeyFile(folder.resolve("secret.key")), clock);
    }

    @AfterEach
    void close() {
        store.close();
    }

    private ReadingTaker taker(boolean dryRun) {
        return new ReadingTaker(store, new Access(REGISTRY, TECHNICIAN), clock, dryRun);
    }

    private static InputStream bytes(String text) {
        return new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8));
    }

    private ImportReport csv(CsvImport.Columns columns, String... lines) throws IOException {
        ReadingTaker taker = taker(false);
        new CsvImport(columns).read(bytes(String.join("\r\n", lines)), taker);
        return taker.report();
    }

    private ImportReport senml(String pack) throws IOException {
        ReadingTaker taker = taker(false);
        new SenmlImport(Map.of("barn/t", "a"), clock).read(bytes(pack), taker);
        return taker.report();
    }

    private List<Reading> kept(int point) {
        SeriesSlice all = store.series().range(point, Instant.EPOCH, Instant.parse("2100-01-01T00:00:00Z"));
        return java.util.stream.IntStream.range(0, all.size())
                .mapToObj(all::reading)
                .toList();
    }

    private static Reading good(String time, double value) {
        return Reading.good(Instant.parse(time), value);
    }

    @Test
    void theUsualColumnsAreFoundByTheirNamesInAnyOrder() throws IOException {
        ImportReport report = csv(
                AS_NAMED,
                "point,Value,time,quality",
                "1,21.5,2026-05-01T08:00:00+02:00,",
                "b,2.25,2026-05-01T06:00:10Z,uncertain");
        assertThat(report.refused()).isZero();
        assertThat(kept(1)).containsExactly(good("2026-05-01T06:00:00Z", 21.5));
        assertThat(kept(2))
                .containsExactly(new Reading(Instant.parse("2026-05-01T06:00:10Z"), 2.25, Quality.UNCERTAIN));
    }

    @Test
    void aSpreadsheetsSemicolonsAndDecimalCommasAreRead() throws IOException {
        ImportReport report = csv(
                new CsvImport.Columns("Zeit", null, "Wert", null, "1", ZoneId.of("Europe/Paris")),
                "Zeit;Wert;Bemerkung",
                "2026-01-10 08:00:00;4,5;kalt, klar",
                "2026-07-10 08:00;1,5;");
        assertThat(report.problems())
                .extracting(ImportReport.LineProblem::reason)
                .containsExactly("the time 2026-07-10T06:00:00Z lies before 2000 or in the future");
        assertThat(kept(1)).as("winter time is an hour off UTC").containsExactly(good("2026-01-10T07:00:00Z", 4.5));
    }

    @Test
    void unixSecondsAndMillisecondsAreTimesToo() throws IOException {
        csv(AS_NAMED, "time,point,value", "1777600000,1,1", "1777600001500,1,2");
        assertThat(kept(1)).containsExactly(good("2026-05-01T01:46:40Z", 1), good("2026-05-01T01:46:41.500Z", 2));
    }

    @Test
    void linesThatAreWrongAreRefusedWithTheirNumberAndTheRestIsKept() throws IOException {
        ImportReport report = csv(
                AS_NAMED,
                "time,point,value,unit",
                "2026-05-01T06:00:00Z,1,20,°C",
                "yesterday,1,20,°C",
                "2026-05-01T06:00:10Z,9,20,°C",
                "2026-05-01T06:00:10Z,1,warm,°C",
                "2026-05-01T06:00:10Z,1,NaN,°C",
                "2026-05-01T06:00:10Z,1,70,F",
                "1999-05-01T06:00:10Z,1,20,°C",
                "2026-05-01T06:00:10Z,3,20,°C",
                "2026-05-01T06:00:10Z,1",
                "2026-05-01T06:00:20Z,1,21,°C");
        assertThat(report.accepted()).isEqualTo(2);
        assertThat(report.problems())
                .extracting(ImportReport.LineProblem::line)
                .containsExactly(3L, 4L, 5L, 6L, 7L, 8L, 9L, 10L);
        assertThat(report.problems())
                .extracting(ImportReport.LineProblem::reason)
                .satisfiesExactly(
                        reason -> assertThat(reason).contains("Cannot read 'yesterday' as a time"),
                        reason -> assertThat(reason).contains("no point has the number or id '9'"),
                        reason -> assertThat(reason).contains("'warm' is no number"),
                        reason -> assertThat(reason).contains("'NaN' is no finite number"),
                        reason -> assertThat(reason).contains("is in 'F', but Point 1 is kept in '°C'"),
                        reason -> assertThat(reason).contains("lies before 2000"),
                        reason -> assertThat(reason).contains("you may not bring in readings of 'Point 3'"),
                        reason -> assertThat(reason).contains("has 2 fields, the header names 4"));
        assertThat(kept(1)).hasSize(2);
    }

    @Test
    void aValueThatCannotBeRealIsKeptAndMarkedBad() throws IOException {
        csv(AS_NAMED, "time,point,value", "2026-05-01T06:00:00Z,1,-400");
        assertThat(kept(1)).extracting(Reading::quality).containsExactly(Quality.BAD);
    }

    @Test
    void aHeaderWithoutWhatIsNeededSaysWhatItHas() {
        assertThatThrownBy(() -> csv(AS_NAMED, "when,what", "1,2"))
                .isInstanceOf(UnreadableFile.class)
                .hasMessageContaining("'time' is missing")
                .hasMessageContaining("when, what");
    }

    @Test
    void aDryRunKeepsNothing() throws IOException {
        ReadingTaker taker = taker(true);
        new CsvImport(AS_NAMED).read(bytes("time,point,value\n2026-05-01T06:00:00Z,1,20\n"), taker);
        assertThat(taker.report()).isEqualTo(new ImportReport(1, 0, List.of(), true));
        assertThat(kept(1)).isEmpty();
    }

    @Test
    void manyProblemsAreCountedAndTheFirstAreShown() throws IOException {
        String[] lines = new String[1 + 400];
        java.util.Arrays.fill(lines, "never,1,2");
        lines[0] = "time,point,value";
        ImportReport report = csv(AS_NAMED, lines);
        assertThat(report.refused()).isEqualTo(400);
        assertThat(report.problems()).hasSize(50);
    }

    /**
     * RFC 8428, 5.1.3: base name, base time and base unit hold for what follows; times below 2^28 are relative to now.
     */
    @Test
    void baseFieldsHoldForTheRecordsAfterThem() throws IOException {
        ImportReport report = senml("""
        [{"bn":"point-2","bt":1777600000,"bu":"m/s","v":0.00207},
         {"t":10,"v":0.00225},
         {"bn":"barn/t","bt":0,"bu":"Cel","t":-60,"v":20.5},
         {"n":"x","v":1},
         {"bn":"barn/t","t":-50,"vs":"warm"}]""");
        assertThat(kept(2)).containsExactly(good("2026-05-01T01:46:40Z", 2.07), good("2026-05-01T01:46:50Z", 2.25));
        assertThat(kept(1)).containsExactly(good("2026-06-01T11:59:00Z", 20.5));
        assertThat(report.problems())
                .extracting(ImportReport.LineProblem::reason)
                .satisfiesExactly(reason -> assertThat(reason).contains("'barn/tx'"), reason -> assertThat(reason)
                        .contains("has no number"));
    }

    @Test
    void aPackThatBreaksOffIsSaidSo() {
        assertThatThrownBy(() -> senml("[{\"n\":\"point-1\",\"v\":1},{\"n\""))
                .isInstanceOf(UnreadableFile.class)
                .hasMessageContaining("no JSON from here on");
        assertThatThrownBy(() -> senml("{\"n\":\"point-1\",\"v\":1}"))
                .isInstanceOf(UnreadableFile.class)
                .hasMessageContaining("JSON array");
        assertThatThrownBy(() -> senml("[{\"n\":\"point-1\",\"v\":1},7]"))
                .isInstanceOf(UnreadableFile.class)
                .hasMessageContaining("after record 1");
    }

    @Test
    void noPointIsGuessedFromNothing() throws IOException {
        assertThat(csv(
                                new CsvImport.Columns(null, null, null, null, noPoint(), null),
                                "time,point,value",
                                "2026-05-01T06:00:00Z,,20")
                        .refused())
                .isEqualTo(1);
    }

    private static @Nullable String noPoint() {
        return null;
    }

    /** Damaged at random: what can be read is counted, what cannot is said with its line; nothing else is thrown. */
    @Test
    void noFileThrowsAnythingButWords() throws IOException {
        Random random = new Random(27);
        String table =
                "\uFEFFtime;point;value;quality\r\n2026-05-01T00:00:00Z;a;\"4,5\";good\r\n2026-05-01 01:00;b;5;bad\r\n";
        String pack =
                "[{\"bn\":\"barn/\",\"bt\":1777600000,\"n\":\"t\",\"u\":\"Cel\",\"v\":8.4},{\"n\":\"t\",\"t\":60,\"v\":9}]";
        String[] bits = {"\"", ";;", "\r\n", "1e999", "null", "{", "]", "\u0000", "time", "\"\"\"", "-", "\uD800"};
        for (int i = 0; i < Integer.getInteger("fuzz", 8_000) / 10; i++) {
            StringBuilder text = new StringBuilder(i % 2 == 0 ? table : pack);
            for (int k = random.nextInt(5); k >= 0; k--) {
                int at = random.nextInt(text.length() + 1);
                if (random.nextBoolean()) {
                    text.insert(at, bits[random.nextInt(bits.length)]);
                } else {
                    text.delete(at, Math.min(text.length(), at + random.nextInt(6)));
                }
            }
            ReadingTaker taker = taker(true);
            try {
                if (i % 2 == 0) {
                    new CsvImport(AS_NAMED).read(bytes(text.toString()), taker);
                } else {
                    new SenmlImport(Map.of("barn/t", "a"), clock).read(bytes(text.toString()), taker);
                }
                taker.report().problems().forEach(problem -> assertThat(problem.reason())
                        .as("%s", text)
                        .isNotBlank());
            } catch (UnreadableFile expected) {
                assertThat(expected.getMessage()).as("%s", text).isNotBlank();
            }
        }
    }
}
